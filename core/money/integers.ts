/** Arithmetic of whole numbers without bounds. */

const POWERS: bigint[] = [1n];

/** Ten to a whole power that is not negative. */
export function power10(exponent: number): bigint {
  return (POWERS[exponent] ??= 10n ** BigInt(exponent));
}

export const magnitude = (value: bigint): bigint => (value < 0n ? -value : value);

/** How many decimal digits a whole number has. */
export function digitCount(value: bigint): number {
  return magnitude(value).toString().length;
}

/** The greatest whole number that divides both, never negative. */
export function commonDivisor(one: bigint, other: bigint): bigint {
  let [a, b] = [magnitude(one), magnitude(other)];
  while (b !== 0n) [a, b] = [b, a % b];
  return a;
}

/** The root of a whole number that is not negative, if it is a whole number. */
export function wholeRoot(value: bigint, degree: bigint): bigint | undefined {
  if (value < 2n) return value;
  // Newton's method from above: each step lies between the root and the last one.
  let root = 1n << (BigInt(value.toString(2).length) / degree + 1n);
  for (;;) {
    const next = ((degree - 1n) * root + value / root ** (degree - 1n)) / degree;
    if (next >= root) return root ** degree === value ? root : undefined;
    root = next;
  }
}
