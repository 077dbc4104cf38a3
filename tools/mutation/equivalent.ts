/**
 * Changes that make no difference to any number. Most of them only choose between two ways to the same one: arithmetic on
 * plain integers, and the same on integers without bounds.
 */
export interface Equivalent {
  file: string;
  /** A piece of the line it stands in. */
  line: string;
  /** What is changed; anything in that line where absent. */
  was?: string;
  why: string;
}

const FAST = 'the way without bounds gives the same';

export const EQUIVALENT: readonly Equivalent[] = [
  { file: 'core/money/rounding.ts', line: 'const negative = remainder < 0', why: 'neither is zero here' },
  { file: 'core/money/rounding.ts', line: 'return one < other ? -1', was: '1', why: 'only the sign is looked at' },
  { file: 'core/money/allocate.ts', line: 'sum < 0n ? [-1n, -sum]', why: 'a sum of zero was refused before' },
  { file: 'core/money/decimal.ts', line: 'const SMALL_POWERS =', why: FAST },
  { file: 'core/money/decimal.ts', line: 'const USUAL =', why: 'beyond it the bounds are looked at one by one' },
  { file: 'core/money/decimal.ts', line: 'if (digits.length <= 15)', why: FAST },
  { file: 'core/money/decimal.ts', line: 'sign === \'-\' ? -1 : 1', was: '*', why: 'the other factor is 1 or −1' },
  { file: 'core/money/decimal.ts', line: '< SMALL_POWERS.length', why: FAST },
  { file: 'core/money/decimal.ts', line: 'SMALL_POWERS[-shift]', why: FAST },
  { file: 'core/money/decimal.ts', line: 'aligned <= SAFE && aligned >= -SAFE', why: FAST },
  { file: 'core/money/decimal.ts', line: 'product <= SAFE && product >= -SAFE', why: FAST },
  { file: 'core/money/decimal.ts', line: 'this.divisor === 1n && other.divisor === 1n', was: '1n', why: 'a fraction over 1 is the same decimal' },
  { file: 'core/money/decimal.ts', line: 'if (divisor === 1n) return Decimal.#made', was: '1n', why: 'a fraction over 1 is the same decimal' },
]; // prettier-ignore
