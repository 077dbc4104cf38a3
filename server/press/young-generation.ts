/**
 * Room for young objects in MiB. What one document needs lives until it is printed: with less room than that, the engine
 * copies it over and over, which takes a third of the time of composing.
 */
export const YOUNG_GENERATION = 96;

/** The same for a process of its own: the engine keeps three spaces of this size. */
export const YOUNG_GENERATION_FLAG = `--max-semi-space-size=${YOUNG_GENERATION / 3}`;
