/** Numbers that look random and are the same for the same seed (a linear congruential generator, Knuth's MMIX). */
export class Random {
  #state: bigint;

  constructor(seed: number) {
    this.#state = BigInt(seed);
  }

  /** From 0 to below 1. */
  share(): number {
    this.#state = BigInt.asUintN(64, this.#state * 6364136223846793005n + 1442695040888963407n);
    return Number(this.#state >> 11n) / 2 ** 53;
  }

  /** From 1 to `most`. */
  upTo(most: number): number {
    return 1 + Math.floor(this.share() * most);
  }

  of<Each>(all: readonly Each[]): Each {
    return all[Math.floor(this.share() * all.length)]!;
  }
}
