/** The first of the names for 1, 2, 3, … that is not taken. */
export function firstFree(name: (count: number) => string, taken: readonly string[]): string {
  const used = new Set(taken);
  for (let count = 1; ; count++) if (!used.has(name(count))) return name(count);
}

/** An id that no other has, made of what something is called: “Credit notes” is `credit-notes`. `otherwise`: of what has no letters. */
export function idFor(label: string, otherwise: string, others: readonly { id: string }[]): string {
  const letters = label.toLowerCase().replace(/[^a-z0-9]+/g, '-');
  const base = letters.replace(/^-|-$/g, '').slice(0, 60) || otherwise;
  return firstFree(
    (count) => (count === 1 ? base : `${base}-${count}`),
    others.map(({ id }) => id),
  );
}
