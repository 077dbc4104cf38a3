const FIRST = 500;
const LONGEST = 10 * 60_000;

/** How long after an attempt was sent its work may still turn up outside of Lumbix, in milliseconds. */
export const QUIET = 5 * 60_000;

/**
 * How long a step waits after so many attempts, in milliseconds: half a second at first, twice as long each time, ten minutes at
 * most; never shorter than what the other side asked for. Up to a quarter more or less, so that not all come back at once.
 */
export function pauseAfter(attempts: number, asked = 0, random = Math.random): number {
  const usual = Math.min(LONGEST, FIRST * 2 ** Math.min(attempts - 1, 30));
  return Math.max(asked, usual * (0.75 + random() / 2));
}
