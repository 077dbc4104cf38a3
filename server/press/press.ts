import Piscina from 'piscina';
import { join } from 'node:path';
import type { ComposeContext } from '../../core/compose/compose';
import type { Composition } from '../../core/compose/composition';
import type { LookedOver } from '../../core/files/look-over';
import { RefusedFile } from '../../core/files/refused-file';
import type { RecordSnapshot } from '../../core/record/snapshot';
import type { Template } from '../../core/template/template';
import type { Workings } from '../../core/formula/workings';
import type { ProofPages } from '../../render/typst/typesetter';
import { config } from '../config';

/** What a composition is made of. Plain data: it is handed to a worker thread. */
export interface PressJob {
  template: Template;
  snapshot: RecordSnapshot;
  context: ComposeContext;
}

export type PressTask =
  | { task: 'compose'; job: PressJob }
  | { task: 'proof'; job: PressJob; key: string }
  | { task: 'explain'; job: PressJob; key: string; id: string }
  | { task: 'print'; job: PressJob }
  | { task: 'thumbnail'; job: PressJob; width: number }
  | { task: 'look over'; bytes: Uint8Array };

export interface Proof {
  composition: Composition;
  pages: ProofPages;
}

export interface Print {
  composition: Composition;
  /** How each figure and value came about; absent, as the PDF is, when a finding stops filing and it is no trial. */
  workings?: Record<string, Workings>;
  pdf?: Uint8Array;
}

/** The worker threads that compose and set documents, so that neither is done on the process's own thread. */
export class Press {
  readonly #pool: Piscina;

  constructor(threads: number) {
    this.#pool = new Piscina({
      filename: join(config.buildFolder, 'press-worker.mjs'),
      minThreads: 1,
      maxThreads: threads,
      idleTimeout: 60_000,
      workerData: { pressFolder: join(config.buildFolder, 'press') },
    });
  }

  compose(job: PressJob): Promise<Composition> {
    return this.#run<Composition>({ task: 'compose', job });
  }

  /** Sets a proof. `key` names it for `explain`. */
  proof(job: PressJob, key: string): Promise<Proof> {
    return this.#run<Proof>({ task: 'proof', job, key });
  }

  /** How one figure or value of a proof came about; quick while the thread still has the proof at hand. */
  explain(job: PressJob, key: string, id: string): Promise<Workings | undefined> {
    return this.#run<Workings | undefined>({ task: 'explain', job, key, id });
  }

  print(job: PressJob): Promise<Print> {
    return this.#run<Print>({ task: 'print', job });
  }

  /** The first page as a PNG, this many pixels wide. */
  thumbnail(job: PressJob, width: number): Promise<Uint8Array> {
    return this.#run<Uint8Array>({ task: 'thumbnail', job, width });
  }

  /** What a file is, and whether it can be printed. @throws RefusedFile */
  async lookOver(bytes: Uint8Array): Promise<LookedOver> {
    const seen = await this.#run<LookedOver | { refused: string }>({ task: 'look over', bytes });
    if ('refused' in seen) throw new RefusedFile(seen.refused);
    return seen;
  }

  close(): Promise<void> {
    return this.#pool.destroy();
  }

  #run<Result>(task: PressTask): Promise<Result> {
    return this.#pool.run(task) as Promise<Result>;
  }
}
