import { fork, type ChildProcess } from 'node:child_process';
import { setPriority } from 'node:os';
import { join } from 'node:path';
import { config } from '../config';
import { PastBounds, type Bounds } from './bounds';
import { memoryOf } from './memory';
import { Packer, type Packed } from './parts';
import type { PressTask } from './press';
import { YOUNG_GENERATION_FLAG } from './young-generation';

/** What a process of the press answers. */
export interface Answer {
  result?: unknown;
  failed?: string;
}

/** How often a task's memory is looked at, in milliseconds. */
const LOOK_EVERY = 50;

/** One process of the press. It does one task at a time, and is ended where a task passes its bounds. */
export class PressProcess {
  readonly #child: ChildProcess;
  readonly #packer = new Packer();
  #ended = false;
  busy = false;
  /** Another one is there for later tasks, or on its way. */
  isReplaced = false;
  #isRetiring = false;
  /** What its last task was about: it has that at hand. */
  about: string | undefined;

  /** `nice` as the system counts it: a higher one leaves others the way. */
  constructor(nice: number) {
    const env = { ...process.env, LUMBIX_PRESS_FOLDER: join(config.buildFolder, 'press') };
    this.#child = fork(join(config.buildFolder, 'press-worker.mjs'), {
      serialization: 'advanced',
      env,
      execArgv: [YOUNG_GENERATION_FLAG],
    });
    this.#child.once('exit', () => (this.#ended = true));
    this.#child.on('error', () => this.end());
    if (nice > 0 && this.#child.pid) setPriority(this.#child.pid, nice);
  }

  get hasEnded(): boolean {
    return this.#ended;
  }

  /** In bytes. */
  get memory(): number {
    return memoryOf(this.#child.pid ?? 0);
  }

  /** Does a task. @throws PastBounds, after which the process is gone */
  run(task: PressTask, about: string | undefined, bounds: Bounds): Promise<unknown> {
    this.busy = true;
    this.about = about;
    return new Promise((resolve, reject) => {
      const over = (settle: () => void) => {
        clearTimeout(deadline);
        clearInterval(looking);
        this.#child.off('message', answered);
        this.#child.off('exit', gone);
        this.busy = false;
        if (this.#isRetiring) this.end();
        settle();
      };
      const answered = ({ result, failed }: Answer) =>
        over(() => (failed === undefined ? resolve(result) : reject(new Error(failed))));
      const gone = (code: number | null) =>
        over(() => reject(new Error(`The press ended with ${code ?? 'a signal'} before it was done.`)));
      const pass = (what: 'time' | 'memory') =>
        over(() => {
          this.end();
          reject(new PastBounds(what, bounds));
        });
      const deadline = setTimeout(() => pass('time'), bounds.deadline);
      const looking = setInterval(() => this.memory > bounds.memory && pass('memory'), LOOK_EVERY);
      this.#child.once('message', answered);
      this.#child.once('exit', gone);
      this.#child.send(this.#packer.pack(task) satisfies Packed, (problem) => problem && over(() => reject(problem)));
    });
  }

  /** Ends it once it has done what it is at. */
  retire(): void {
    this.#isRetiring = true;
    if (!this.busy) this.end();
  }

  /** Ends it at once, whatever it does. */
  end(): void {
    this.#ended = true;
    this.#child.kill('SIGKILL');
  }
}
