/** One thread of the press. It keeps its typesetter, and with it fonts and cache. */
import { LRUCache } from 'lru-cache';
import { workerData } from 'node:worker_threads';
import { compose, composing, type Composing } from '../../core/compose/compose';
import { mayFile } from '../../core/preflight/finding';
import { Typesetter } from '../../render/typst/typesetter';
import type { PressJob, PressTask, Print, Proof } from './press';

// piscina hands its own data over beside ours.
const { pressFolder } = (Array.isArray(workerData) ? workerData[1] : workerData) as { pressFolder: string };
const typesetter = new Typesetter(pressFolder);
/** The last proofs, to be explained. */
const atHand = new LRUCache<string, Composing>({ max: 8 });

export default function run(ordered: PressTask): unknown {
  const { job } = ordered;
  switch (ordered.task) {
    case 'compose':
      return compose(job.template, job.snapshot, job.context);
    case 'proof': {
      const { composition } = composed(job, ordered.key);
      return { composition, pages: typesetter.proof(composition.document, composition.assets) } satisfies Proof;
    }
    case 'explain':
      return composed(job, ordered.key).explain(ordered.id);
    case 'print': {
      const { composition, explainAll } = composing(job.template, job.snapshot, job.context);
      if (!mayFile(composition.findings)) return { composition } satisfies Print;
      const pdf = typesetter.pdf(composition.document, composition.assets);
      return { composition, workings: explainAll(), pdf } satisfies Print;
    }
  }
}

function composed(job: PressJob, key: string): Composing {
  let known = atHand.get(key);
  if (!known) atHand.set(key, (known = composing(job.template, job.snapshot, job.context)));
  return known;
}
