/**
 * Changes that make no difference to any number. Most of them only choose between two ways to the same one: arithmetic on
 * plain integers, and the same on integers without bounds.
 */
export interface Equivalent {
  file: string;
  /** A piece of the line it stands in. */
  line: string;
  /** What is changed; anything in that line where absent. */
  was?: string | readonly string[];
  why: string;
}

const FAST = 'the way without bounds gives the same';
const BY_FORTY = 'it decides between the exact form and its first forty digits';
const GUARD = 'more digits than the forty that are kept';

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
  { file: 'core/money/decimal.ts', line: 'a % b === 0) return Decimal.#made(a / b', was: '%', why: FAST },
  { file: 'core/money/decimal.ts', line: 'return divisor === 1n', was: '1n', why: 'a fraction over 1 is the same decimal' },
  { file: 'core/money/decimal.ts', line: 'if (degree > MOST_DIGITS * 4', why: 'the root has the same forty digits in its exact form' },
  { file: 'core/money/decimal.ts', line: 'const digits = digitCount(BigInt(this.coefficient))', why: BY_FORTY },
  { file: 'core/money/decimal.ts', line: 'if (digits > 0 && BigInt(digits) * exponent', why: BY_FORTY },
  { file: 'core/money/decimal.ts', line: 'if (BigInt(Math.abs(this.scale)) * exponent', why: BY_FORTY },
  { file: 'core/money/decimal.ts', line: 'if (this.divisor === 1n) return Decimal.#made(coefficient, scale)', was: '1n', why: 'a fraction over 1 is the same decimal' },
  { file: 'core/money/decimal.ts', line: 'return left === 1n ?', was: '1n', why: 'a fraction over 1 is the same decimal' },
  { file: 'core/money/decimal.ts', line: 'precision: PRECISION + 10', was: '10', why: GUARD },
  { file: 'core/money/decimal.ts', line: 'this.#significant(PRECISION + 20)', was: '20', why: GUARD },
  { file: 'core/money/decimal.ts', line: 'power.e >= MOST_WHOLE_DIGITS', was: '>=', why: 'the bound is looked at again where the decimal is made' },
  { file: 'core/money/decimal.ts', line: 'if (power.e < -MOST_DIGITS / 2)', was: ['/', '2'], why: 'the bound of all digits holds besides' },
  { file: 'core/money/decimal.ts', line: '(this.scale <= 0 || this.#stripped().scale <= 0)', was: '<=', why: 'a scale of 0 is found the longer way too' },
  { file: 'core/money/decimal.ts', line: 'this.sign() < other.sign() ? -1 : 1', was: '<', why: 'the signs differ here' },
  { file: 'core/money/decimal.ts', line: 'if (excess <= 0 && divisor === 1n) return this', was: '<=', why: 'rounding to the digits it has changes nothing' },
  { file: 'core/money/decimal.ts', line: 'const dividend = excess < 0', was: ['<', '0'], why: 'ten to the power of 0 is 1' },
  { file: 'core/money/decimal.ts', line: 'excess > 0 ? divisor * power10(excess)', was: '>', why: 'ten to the power of 0 is 1' },
  { file: 'core/money/decimal.ts', line: '(product / commonDivisor(product, divisor)) * divisor', was: '/', why: 'common factors are taken out at the end' },
  { file: 'core/money/decimal.ts', line: '1n,', was: '1n', why: 'common factors are taken out at the end' },
  { file: 'core/money/decimal.ts', line: 'wholes.reduce(commonDivisor, 0n) || 1n', was: '1n', why: 'only zeros are divided by it' },
  { file: 'core/money/decimal.ts', line: 'if (this.scale <= 0) return [whole', was: '<=', why: 'a whole number has no factor to take out' },
  { file: 'core/money/decimal.ts', line: 'const found = digitCount(rounded.#at', was: 'max', why: 'rounding again changes nothing where there are fewer decimals' },
  { file: 'core/money/decimal.ts', line: 'found > digits ? this.round', was: '>', why: 'the same digits are rounded to' },
  { file: 'core/money/decimal.ts', line: 'while (scale > 0 && coefficient %', was: '>', why: 'zeros before the point may go or stay' },
  { file: 'core/money/decimal.ts', line: 'return new Decimal(coefficient, scale, 1n);', was: '1n', why: 'only its coefficient and scale are looked at' },
  { file: 'core/money/decimal.ts', line: 'return sum <= SAFE && sum >= -SAFE', was: ['<=', '>=', '-'], why: FAST },
  { file: 'core/money/decimal.ts', line: 'if (coefficient > SAFE || coefficient < -SAFE)', was: ['>', '<', '-'], why: FAST },
  { file: 'core/money/decimal.ts', line: 'return scale <= 200 && scale >= -200', why: 'far from the bounds' },
  { file: 'core/money/decimal.ts', line: 'const isSafe = coefficient <= SAFE', was: ['<=', '>=', '-'], why: FAST },
  { file: 'core/money/decimal.ts', line: 'divisor < 0n ?', was: ['<', '0n'], why: 'no divisor is zero' },
  { file: 'core/money/decimal.ts', line: 'if (whole < USUAL && divisor < USUAL', was: ['<', '>=', '<=', '-', '200', '100'], why: 'beyond it the bounds are looked at one by one' },
  { file: 'core/money/integers.ts', line: '(value < 0n ? -value : value)', was: ['<', '0n'], why: 'zero has no sign' },
  { file: 'core/money/integers.ts', line: 'let root = 1n <<', why: 'only where the search begins' },
  { file: 'core/money/allocate.ts', line: 'Number(b.remainder > a.remainder)', was: '>', why: 'only whether it is below zero is looked at' },
  { file: 'core/money/number-symbols.ts', line: 'minimumFractionDigits: 1', why: 'any number with a fraction shows the same signs' },
  { file: 'core/money/number-symbols.ts', line: 'formatToParts(-1)', was: '1', why: 'any number below zero shows the same sign' },
  { file: 'core/money/number-symbols.ts', line: 'useGrouping: false', why: 'single digits have no groups' },
  { file: 'core/money/number-symbols.ts', line: 'formatToParts(1234)', was: '1234', why: 'any number of four digits shows it' },
  { file: 'core/money/number-symbols.ts', line: 'Array.from({ length: 10 }', was: '10', why: 'no digit is above nine' },
  { file: 'core/money/number-symbols.ts', line: 'sizes.length < 3 ||', was: ['<', '3', '1'], why: 'groups of one size are the same however many are listed' },
  { file: 'core/formula/functions/register.ts', line: 'if (base && tax)', was: '&&', why: 'base and tax of a row come together' },
  { file: 'core/formula/functions/register.ts', line: 'if (lessBase && lessTax)', was: ['&&', '1'], why: 'base and tax of a row come together; only whether the sign is 1 is looked at' },
]; // prettier-ignore
