/** A process of the press: one task after the other. It keeps its typesetter, and with it fonts and cache. */
import { Worker } from 'node:worker_threads';
import { compose, composing } from '../../core/production/compose';
import type { Composition } from '../../core/production/composition';
import { outcomeOf } from '../../core/production/replay';
import { lookOver, type LookedOver } from '../../core/files/look-over';
import { RefusedFile } from '../../core/files/refused-file';
import { Decimal } from '../../core/money/decimal';
import { unpackedText } from '../../core/files/unpack';
import { readTemplateFile } from '../../core/template/file/read';
import { faultsOf } from '../../core/template/gate';
import { mayFile } from '../../core/production/findings/finding';
import { printPdf } from '../../render/pdf/print';
import { rasterised } from '../../render/png/thumbnail';
import { Typesetter, TypesettingError } from '../../render/typst/typesetter';
import { ProofsAtHand } from './at-hand';
import { nameOfInput, Unpacker, type Packed } from './parts';
import type { Composed, CompositionInput, PressTask, Print, Proof } from './press';
import { compressed } from '../compress';
import { pagesAnswer, proofAnswer } from './proof-answer';
import type { Answer } from './press-process';

const typesetter = new Typesetter(process.env.LUMBIX_PRESS_FOLDER!);
const unpacker = new Unpacker();
const atHand = new ProofsAtHand(typesetter);

process.on('message', (packed: Packed) => {
  // Where the process that it works for is gone, nobody waits for the answer.
  const answer = (given: Answer) => process.send!(given, undefined, undefined, () => undefined);
  run(unpacker.unpack(packed), packed).then(
    (result) => answer({ result }),
    (problem: unknown) => answer({ failed: problem instanceof Error ? problem.message : String(problem) }),
  );
});
/** Where the process that it works for is gone, it ends, whatever it is at: a thread of its own sees to that. */
const WATCH = `const parent = process.ppid;
  setInterval(() => process.ppid === parent || process.kill(process.pid, 'SIGKILL'), 500);`;
new Worker(WATCH, { eval: true }).unref();
// A terminal tells all its processes to end; this one ends with the one that it works for.
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => undefined);

async function run(task: PressTask, packed: Packed): Promise<unknown> {
  switch (task.kind) {
    case 'look over':
      return lookedOver(task.bytes);
    case 'read template':
      return readTemplate(task.bytes);
    case 'check template':
      return faultsOf(task.template, task.pins, task.schema);
    default:
      return withInput(task, packed);
  }
}

async function withInput(task: Extract<PressTask, { input: CompositionInput }>, packed: Packed): Promise<unknown> {
  const { input } = task;
  const asked = (key: string) => ({ input, key, inputName: nameOfInput(packed) });
  switch (task.kind) {
    case 'compose':
      return withoutAssets(compose(input.template, input.snapshot, input.context));
    case 'proof': {
      const { used, usedDigest } = atHand.composed(asked(task.key)).composition;
      const answer = await compressed(
        JSON.stringify(proofAnswer(task.head, atHand.content(asked(task.key)), task)),
        task.encoding,
      );
      return { answer, used, usedDigest } satisfies Proof;
    }
    case 'pages':
      return compressed(JSON.stringify(pagesAnswer(atHand.content(asked(task.key)), task.span)), task.encoding);
    case 'parts':
      return atHand.composed(asked(task.key)).parts();
    case 'work back':
      return atHand.composed(asked(task.key)).workBack(task.figure, Decimal.of(task.wanted));
    case 'explain':
      return atHand.composed(asked(task.key)).explain(task.id);
    case 'print': {
      const { composition, explainAll } = composing(input.template, input.snapshot, input.context);
      if (!mayFile(composition.findings) && !input.context.trial)
        return { composition: withoutAssets(composition) } satisfies Print;
      const pdf = await printPdf(typesetter, composition);
      return { composition: withoutAssets(composition), workings: explainAll(), pdf } satisfies Print;
    }
    case 'outcome': {
      const made = composing(input.template, input.snapshot, input.context);
      const { document, assets } = made.composition;
      return outcomeOf(made, typesetter.proof(document, assets).pages.length);
    }
    case 'thumbnail': {
      const { document, assets } = compose(input.template, input.snapshot, input.context);
      return rasterised(typesetter.proof(document, assets), task.width);
    }
  }
}

const withoutAssets = ({ assets: _assets, ...composition }: Composition): Composed => composition;

/** A template file's template, or what is wrong with its shape. It may be packed, alone in a ZIP archive. */
function readTemplate(bytes: Uint8Array): ReturnType<typeof readTemplateFile> {
  try {
    return readTemplateFile(unpackedText(bytes));
  } catch (problem) {
    if (problem instanceof RefusedFile) return { faults: [{ path: '', sentence: problem.message }] };
    throw problem;
  }
}

/** What a file is; or why it is refused, since an error loses its kind on the way between threads. */
async function lookedOver(bytes: Uint8Array): Promise<LookedOver | { refused: string }> {
  try {
    const seen = await lookOver(bytes);
    if (seen.mediaType !== 'application/pdf') typesetter.tryPicture({ mediaType: seen.mediaType, bytes });
    return seen;
  } catch (problem) {
    if (problem instanceof RefusedFile) return { refused: problem.message };
    if (problem instanceof TypesettingError)
      return { refused: 'The picture is damaged and cannot be drawn. Save it again.' };
    throw problem;
  }
}
