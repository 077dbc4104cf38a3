/** Median of some rounds in milliseconds, after two that do not count. */
export async function medianOf(round: () => unknown, rounds: number): Promise<number> {
  const times: number[] = [];
  for (let index = 0; index < rounds + 2; index++) {
    const start = performance.now();
    await round();
    if (index >= 2) times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[Math.floor(rounds / 2)]!;
}

/** A time as it is written in a table. */
export const ms = (time: number): string => `${time.toFixed(1).padStart(8)} ms`;
