/**
 * Room for young objects in MiB, of which the engine keeps three spaces. What one document needs lives until it is printed: with
 * less room than that, the engine copies it over and over, which takes a third of the time of composing.
 */
const YOUNG_GENERATION = 96;

export const YOUNG_GENERATION_FLAG = `--max-semi-space-size=${YOUNG_GENERATION / 3}`;
