import { fork } from 'node:child_process';
import Piscina from 'piscina';
import { join } from 'node:path';
import type { ComposeContext } from '../../core/production/compose';
import type { Composition } from '../../core/production/composition';
import type { LookedOver } from '../../core/files/look-over';
import { RefusedFile } from '../../core/files/refused-file';
import type { RecordSnapshot } from '../../core/record/snapshot';
import type { RecordSchema } from '../../core/record/schema';
import type { Fault, FaultReport } from '../../core/shape/faults';
import type { Pins, Template } from '../../core/template/template';
import type { Workings } from '../../core/sheet/workings';
import type { ProofPages } from '../../render/typst/typesetter';
import { config } from '../config';
import { YOUNG_GENERATION, YOUNG_GENERATION_FLAG } from './young-generation';

/** What a composition is made of. Plain data: it is handed to a worker thread. */
export interface CompositionInput {
  template: Template;
  snapshot: RecordSnapshot;
  context: ComposeContext;
}

export type PressTask =
  | { kind: 'compose'; input: CompositionInput }
  | { kind: 'proof'; input: CompositionInput; key: string }
  | { kind: 'explain'; input: CompositionInput; key: string; id: string }
  | { kind: 'print'; input: CompositionInput }
  | { kind: 'thumbnail'; input: CompositionInput; width: number }
  | { kind: 'look over'; bytes: Uint8Array }
  | { kind: 'read template'; bytes: Uint8Array }
  | { kind: 'check template'; template: Template; pins: Pins; schema: RecordSchema };

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

/** Records with more related records than this are set in a process of their own. */
const OUTSIZE = 2_000;

/** Whether setting this takes memory that the machine should have back. Composing alone takes little. */
function isOutsize(task: PressTask): boolean {
  if (!('input' in task) || task.kind === 'compose' || task.kind === 'explain') return false;
  return Object.values(task.input.snapshot.fields).some((value) => Array.isArray(value) && value.length > OUTSIZE);
}

/**
 * Does one task in a process that ends with it. A typesetter keeps for later what it once took, about a third of a
 * megabyte for each line; a process gives everything back.
 */
function runAlone(task: PressTask): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const env = { ...process.env, LUMBIX_PRESS_FOLDER: join(config.buildFolder, 'press') };
    const child = fork(join(config.buildFolder, 'press-alone.mjs'), {
      serialization: 'advanced',
      env,
      execArgv: [YOUNG_GENERATION_FLAG],
    });
    let answered = false;
    child.once('message', ({ result, failed }: Answer) => {
      answered = true;
      if (failed === undefined) resolve(result);
      else reject(new Error(failed));
    });
    child.once('error', reject);
    child.once('exit', (code) => answered || reject(new Error(`The press ended with ${code} before it was done.`)));
    child.send(task);
  });
}

/** The same bytes in a buffer that holds nothing else, so that it can be handed over. */
function ownBytes(bytes: Uint8Array): Uint8Array<ArrayBuffer> {
  const { buffer } = bytes;
  const isAlone = buffer instanceof ArrayBuffer && buffer.byteLength === bytes.byteLength;
  return isAlone ? new Uint8Array(buffer) : new Uint8Array(bytes);
}

/** What a process of its own answers. */
export interface Answer {
  result?: unknown;
  failed?: string;
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
      resourceLimits: { maxYoungGenerationSizeMb: YOUNG_GENERATION },
      workerData: { pressFolder: join(config.buildFolder, 'press') },
    });
  }

  compose(input: CompositionInput): Promise<Composition> {
    return this.#run<Composition>({ kind: 'compose', input });
  }

  /** Sets a proof. `key` names it for `explain`. */
  proof(input: CompositionInput, key: string): Promise<Proof> {
    return this.#run<Proof>({ kind: 'proof', input, key });
  }

  /** How one figure or value of a proof came about; quick while the thread still has the proof at hand. */
  explain(input: CompositionInput, key: string, id: string): Promise<Workings | undefined> {
    return this.#run<Workings | undefined>({ kind: 'explain', input, key, id });
  }

  print(input: CompositionInput): Promise<Print> {
    return this.#run<Print>({ kind: 'print', input });
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

  /**
   * Reads a template file, off the thread that answers requests: a hostile one may be slow to refuse. The bytes are handed over
   * and gone here afterwards, since a copy of 30 MB for each thread is what fills a process.
   */
  readTemplate(bytes: Uint8Array): Promise<{ template: Template } | { faults: Fault[] }> {
    const own = ownBytes(bytes);
    return this.#pool.run({ kind: 'read template', bytes: own } satisfies PressTask, { transferList: [own.buffer] });
  }

  /** What is wrong with a template: the one gate. */
  faultsOf(template: Template, pins: Pins, schema: RecordSchema): Promise<FaultReport> {
    return this.#run<FaultReport>({ kind: 'check template', template, pins, schema });
  }

  close(): Promise<void> {
    return this.#pool.destroy();
  }

  #run<Result>(task: PressTask): Promise<Result> {
    return (isOutsize(task) ? runAlone(task) : this.#pool.run(task)) as Promise<Result>;
  }
}
