/** The first of the names for 1, 2, 3, … that is not taken. */
export function firstFree(name: (count: number) => string, taken: readonly string[]): string {
  const used = new Set(taken);
  for (let count = 1; ; count++) if (!used.has(name(count))) return name(count);
}
