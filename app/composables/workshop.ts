import { wrap, type Remote } from 'comlink';
import type { FigureWorkshop } from '~/workers/figure-workshop';

let workshop: Remote<FigureWorkshop> | undefined;

/** The worker thread that checks and computes figure sheets, so that typing never waits for it. */
export function useWorkshop(): Remote<FigureWorkshop> {
  workshop ??= wrap<FigureWorkshop>(
    new Worker(new URL('../workers/figures.worker.ts', import.meta.url), { type: 'module' }),
  );
  return workshop;
}
