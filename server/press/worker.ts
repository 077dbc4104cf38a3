/** One thread of the press. It keeps its typesetter, and with it fonts and cache. */
import { workerData } from 'node:worker_threads';
import { compose } from '../../core/compose/compose';
import { mayFile } from '../../core/preflight/finding';
import { Typesetter } from '../../render/typst/typesetter';
import type { PressTask, Print, Proof } from './press';

// piscina hands its own data over beside ours.
const { pressFolder } = (Array.isArray(workerData) ? workerData[1] : workerData) as { pressFolder: string };
const typesetter = new Typesetter(pressFolder);

export default function run({ task, job }: PressTask): unknown {
  const composition = compose(job.template, job.snapshot, job.context);
  switch (task) {
    case 'compose':
      return composition;
    case 'proof':
      return { composition, pages: typesetter.proof(composition.document, composition.assets) } satisfies Proof;
    case 'print': {
      if (!mayFile(composition.findings)) return { composition } satisfies Print;
      return { composition, pdf: typesetter.pdf(composition.document, composition.assets) } satisfies Print;
    }
  }
}
