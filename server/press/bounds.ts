import { MIB } from './memory';

/** What a task of the press may take: time in milliseconds, memory of its process in bytes. */
export interface Bounds {
  deadline: number;
  memory: number;
}

export const USUAL: Bounds = { deadline: 20_000, memory: 512 * MIB };
/** For documents of thousands of lines, each in a process of its own. */
export const LONG: Bounds = { deadline: 300_000, memory: 2_048 * MIB };

/** A task that was ended since it passed its bounds, in a sentence that says what to change. */
export class PastBounds extends Error {
  constructor(
    readonly what: 'time' | 'memory',
    bounds: Bounds,
  ) {
    super(
      what === 'time'
        ? `This takes longer than ${bounds.deadline / 1_000} seconds to set, and was ended. ${CHANGE}`
        : `This takes more than ${bounds.memory / MIB} MB of memory to set, and was ended. ${CHANGE}`,
    );
    this.name = 'PastBounds';
  }
}

const CHANGE =
  'Print less of it: repetitions inside of repetitions multiply, and very long formatted texts and large pictures take their part.';
