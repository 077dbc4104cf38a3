import PQueue from 'p-queue';
import type { ComposeContext } from '../../core/production/compose';
import type { Composition } from '../../core/production/composition';
import type { DocumentParts } from '../../core/production/document-parts';
import type { WorkedBack } from '../../core/production/work-back';
import type { Outcome } from '../../core/production/replay';
import type { LookedOver } from '../../core/files/look-over';
import { RefusedFile } from '../../core/files/refused-file';
import type { RecordSnapshot } from '../../core/record/snapshot';
import type { RecordSchema } from '../../core/record/schema';
import type { Fault, FaultReport } from '../../core/shape/faults';
import type { Pins, Template } from '../../core/template/template';
import type { Workings } from '../../core/sheet/workings';
import type { UsedValues } from '../../core/record/used';
import { LONG, USUAL } from './bounds';
import { MIB } from './memory';
import { isOutsize } from './outsize';
import { PressProcess } from './press-process';
import type { Encoding } from '../compress';
import type { DraftHead, ProofHead, Sent, Span } from './proof-answer';

/** What a composition is made of. Plain data: it is handed to another process. */
export interface CompositionInput {
  template: Template;
  snapshot: RecordSnapshot;
  context: ComposeContext;
}

export type PressTask =
  | { kind: 'compose'; input: CompositionInput }
  | ({ kind: 'proof'; input: CompositionInput; key: string } & Proofing)
  | { kind: 'pages'; input: CompositionInput; key: string; span: Span; encoding: Encoding }
  | { kind: 'explain'; input: CompositionInput; key: string; id: string }
  | { kind: 'parts'; input: CompositionInput; key: string }
  | { kind: 'work back'; input: CompositionInput; key: string; figure: string; wanted: string }
  | { kind: 'print'; input: CompositionInput }
  | { kind: 'outcome'; input: CompositionInput }
  | { kind: 'thumbnail'; input: CompositionInput; width: number }
  | { kind: 'look over'; bytes: Uint8Array }
  | { kind: 'read template'; bytes: Uint8Array }
  | { kind: 'check template'; template: Template; pins: Pins; schema: RecordSchema };

/** What a proof's answer is made of besides its composition and pages. */
export interface Proofing extends Sent {
  head: ProofHead | DraftHead;
  encoding: Encoding;
}

/** A proof: its answer as it goes out, and what is kept of it to file it later. */
export interface Proof {
  answer: Uint8Array;
  used: UsedValues;
  usedDigest: string;
}

/** A composition without the pictures, which stay with the press. */
export type Composed = Omit<Composition, 'assets'>;

export interface Print {
  composition: Composed;
  /** How each figure and value came about; absent, as the PDF is, when a finding stops filing and it is no trial. */
  workings?: Record<string, Workings>;
  pdf?: Uint8Array;
}

/** Whether a task takes memory that the machine should have back. Composing alone takes little. */
function isForAlone(task: PressTask): boolean {
  return (
    'input' in task &&
    task.kind !== 'compose' &&
    task.kind !== 'explain' &&
    task.kind !== 'parts' &&
    isOutsize(task.input.snapshot)
  );
}

/** What people wait for goes first, then filings, and pictures for the shelf last. */
const PRIORITIES: Readonly<Record<PressTask['kind'], number>> = {
  proof: 2,
  pages: 2,
  explain: 2,
  parts: 2,
  'work back': 1,
  compose: 2,
  outcome: 1,
  'look over': 1,
  'read template': 1,
  'check template': 1,
  print: 1,
  thumbnail: 0,
};

/** A typesetter keeps for later what it once took: past this, its process is replaced; past the other, it does nothing more. */
const REPLACED_AT = 320 * MIB;
const ENDED_AT = 400 * MIB;

/**
 * The processes that compose and set documents, so that neither is done where requests are answered. Each task has a deadline and a
 * ceiling of memory; what passes them is ended and told, and the next task is unharmed.
 */
export class Press {
  readonly #queue: PQueue;
  readonly #long = new PQueue({ concurrency: 1 });
  #processes: PressProcess[] = [];
  #isClosed = false;
  readonly #endAll = () => this.#processes.forEach((each) => each.end());

  /** `nice`: how far its processes leave others the way, as the system counts it. */
  constructor(
    processes: number,
    readonly nice = 0,
    readonly bounds = USUAL,
  ) {
    this.#queue = new PQueue({ concurrency: processes });
    process.once('exit', this.#endAll);
  }

  compose(input: CompositionInput): Promise<Composed> {
    return this.#run<Composed>({ kind: 'compose', input });
  }

  /**
   * Sets a proof and makes its answer, which is large: the process that answers only passes it on. `key` names it for `pages` and
   * `explain`. A process that ends with the proof gives all of its pages at once.
   */
  proof(input: CompositionInput, key: string, proofing: Proofing): Promise<Proof> {
    const near = isOutsize(input.snapshot) ? 'all' : proofing.near;
    return this.#run<Proof>({ kind: 'proof', input, key, ...proofing, near });
  }

  /** The answer with some pages of a proof; quick while a process still has the proof at hand. */
  pages(input: CompositionInput, key: string, span: Span, encoding: Encoding): Promise<Uint8Array> {
    return this.#run<Uint8Array>({ kind: 'pages', input, key, span, encoding });
  }

  /** How one figure or value of a proof came about; quick while a process still has the proof at hand. */
  explain(input: CompositionInput, key: string, id: string): Promise<Workings | undefined> {
    return this.#run<Workings | undefined>({ kind: 'explain', input, key, id });
  }

  /** What of a document can be changed for it alone. */
  parts(input: CompositionInput, key: string): Promise<DocumentParts> {
    return this.#run<DocumentParts>({ kind: 'parts', input, key });
  }

  /** The single values that would have a figure come to a wanted sum, a decimal as text; undefined where it is no sum. */
  workBack(input: CompositionInput, key: string, figure: string, wanted: string): Promise<WorkedBack | undefined> {
    return this.#run<WorkedBack | undefined>({ kind: 'work back', input, key, figure, wanted });
  }

  print(input: CompositionInput): Promise<Print> {
    return this.#run<Print>({ kind: 'print', input });
  }

  /** What a document comes to: its sums, sections, findings and pages. */
  outcome(input: CompositionInput): Promise<Outcome> {
    return this.#run<Outcome>({ kind: 'outcome', input });
  }

  /** The first page as a PNG, this many pixels wide. */
  thumbnail(input: CompositionInput, width: number): Promise<Uint8Array> {
    return this.#run<Uint8Array>({ kind: 'thumbnail', input, width });
  }

  /** What a file is, and whether it can be printed. @throws RefusedFile */
  async lookOver(bytes: Uint8Array): Promise<LookedOver> {
    const seen = await this.#run<LookedOver | { refused: string }>({ kind: 'look over', bytes });
    if ('refused' in seen) throw new RefusedFile(seen.refused);
    return seen;
  }

  /** Reads a template file, away from where requests are answered: a hostile one may be slow to refuse. */
  readTemplate(bytes: Uint8Array): Promise<{ template: Template } | { faults: Fault[] }> {
    return this.#run({ kind: 'read template', bytes });
  }

  /** What is wrong with a template: the one gate. */
  faultsOf(template: Template, pins: Pins, schema: RecordSchema): Promise<FaultReport> {
    return this.#run<FaultReport>({ kind: 'check template', template, pins, schema });
  }

  /** Ends all processes at once; what they were at is not answered. */
  close(): void {
    this.#isClosed = true;
    process.off('exit', this.#endAll);
    this.#queue.clear();
    this.#long.clear();
    this.#endAll();
  }

  #run<Result>(task: PressTask): Promise<Result> {
    const priority = PRIORITIES[task.kind];
    const done = isForAlone(task)
      ? this.#long.add(() => this.#alone(task), { priority })
      : this.#queue.add(() => this.#withProcess(task), { priority });
    return done as Promise<Result>;
  }

  /** In a process that ends with it. */
  async #alone(task: PressTask): Promise<unknown> {
    const own = this.#opened();
    try {
      return await own.run(task, undefined, LONG);
    } finally {
      own.end();
    }
  }

  async #withProcess(task: PressTask): Promise<unknown> {
    const about = 'input' in task ? `${task.input.template.id} ${task.input.snapshot.id}` : undefined;
    const free = this.#processes.filter(({ busy, hasEnded }) => !busy && !hasEnded);
    const chosen = free.find((each) => each.about === about) ?? free[0] ?? this.#opened();
    try {
      return await chosen.run(task, about, this.bounds);
    } finally {
      if (chosen.hasEnded || chosen.memory > ENDED_AT) {
        chosen.end();
        // The next one starts while nobody waits.
        if (!this.#isClosed && !chosen.isReplaced) this.#opened();
      } else if (chosen.memory > REPLACED_AT && !chosen.isReplaced) this.#replace(chosen, task, about);
    }
  }

  /**
   * Opens a process in the place of one that has grown. The new one does the last task once more, for nobody: the first task of a
   * process takes several times as long as the next, and until then the old one goes on.
   */
  #replace(old: PressProcess, task: PressTask, about: string | undefined): void {
    if (this.#isClosed) return;
    old.isReplaced = true;
    const warm = this.#opened().run(task, about, this.bounds);
    void warm.catch(() => undefined).finally(() => old.retire());
  }

  /** Its processes' memory in bytes, for those who watch over it. */
  get memory(): number[] {
    return this.#processes.filter(({ hasEnded }) => !hasEnded).map(({ memory }) => memory);
  }

  #opened(): PressProcess {
    const opened = new PressProcess(this.nice);
    this.#processes = [...this.#processes.filter(({ hasEnded }) => !hasEnded), opened];
    return opened;
  }
}
