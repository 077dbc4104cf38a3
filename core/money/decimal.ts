import PowerLibrary from 'decimal.js';
import { commonDivisor, digitCount, magnitude, power10, wholeRoot } from './integers';
import { roundedQuotient, roundedSafeQuotient, type Rounding } from './rounding';

export type { Rounding, RoundingMode } from './rounding';

/** Digits that a number may have before its point: above that it is refused, so that none is ever taken for infinite. */
const MOST_WHOLE_DIGITS = 300;
/** Digits that a number may have in all, and a fraction in its divisor. */
const MOST_DIGITS = 10_000;
/**
 * Significant digits of a result that has no exact form to keep: a root, a power with a fraction in its exponent. Enough
 * for the product of any two CRM decimals (OData `Edm.Decimal` allows 34) with room before rounding.
 */
const PRECISION = 40;
const SAFE = Number.MAX_SAFE_INTEGER;

const SMALL_POWERS = Array.from({ length: 16 }, (_, exponent) => 10 ** exponent);
/** Whole numbers up to this one are in bounds at any scale that `isUsual` allows. */
const USUAL = 10n ** 100n;

/** A number of a size or precision that is not computed with. */
export class NumberTooGreat extends Error {
  constructor() {
    super(
      'A number has more than 300 digits before its point, or more than 10,000 digits in all. Round it in an earlier step.',
    );
    this.name = 'NumberTooGreat';
  }
}

/**
 * The one number of Lumbix: exact and immutable, `coefficient × 10^-scale / divisor`. Sums, differences, products and
 * quotients are exact; only `round`, roots and fractional powers give something else than their exact value.
 *
 * Nearly every number is a decimal, whose divisor is 1 and whose coefficient is a plain safe integer: arithmetic on those
 * is a hundred times as fast as on digit arrays. A quotient that does not end as a decimal (10/3) keeps its divisor; its
 * coefficient is always a bigint, so that whoever sees a plain coefficient knows the number to be a decimal.
 */
export class Decimal {
  static readonly ZERO = new Decimal(0, 0, 1n);
  static readonly ONE = new Decimal(1, 0, 1n);

  private constructor(
    private readonly coefficient: number | bigint,
    private readonly scale: number,
    /** Above zero, without a factor in common with the coefficient or with 10, so that each number has one form. */
    private readonly divisor: bigint,
  ) {}

  /**
   * A whole number, or decimal text such as `-12.50` or `1e-7`.
   * @throws TypeError for a text that is no number or a number that is not whole; NumberTooGreat
   */
  static of(source: string | number): Decimal {
    if (typeof source === 'number') {
      if (!Number.isSafeInteger(source)) throw new TypeError(`${source} is not a safe whole number.`);
      return source === 0 ? Decimal.ZERO : new Decimal(source, 0, 1n);
    }
    const match = /^([+-]?)(\d*)(?:\.(\d*))?(?:[eE]([+-]?\d{1,6}))?$/.exec(source);
    if (!match || (!match[2] && !match[3])) throw new TypeError(`“${source}” is not a decimal number.`);
    const [, sign, whole = '', fraction = '', exponent = '0'] = match;
    const digits = whole + fraction;
    if (digits.length > MOST_DIGITS) throw new NumberTooGreat();
    const scale = fraction.length - Number(exponent);
    if (digits.length <= 15) return Decimal.#made(Number(digits) * (sign === '-' ? -1 : 1), scale);
    const coefficient = BigInt(digits);
    return Decimal.#made(sign === '-' ? -coefficient : coefficient, scale);
  }

  /** The number that a decimal text says; undefined for a text that is no number, or one that is not computed with. */
  static read(source: string): Decimal | undefined {
    try {
      return Decimal.of(source);
    } catch (problem) {
      if (problem instanceof TypeError || problem instanceof NumberTooGreat) return undefined;
      throw problem;
    }
  }

  /** The sum. @throws NumberTooGreat */
  plus(other: Decimal): Decimal {
    const { coefficient: a, scale } = this;
    const { coefficient: b } = other;
    if (typeof a === 'number' && typeof b === 'number') {
      const shift = scale - other.scale;
      if (shift === 0) return Decimal.#sum(a, b, scale);
      if (a === 0) return other;
      if (b === 0) return this;
      if (shift > 0 && shift < SMALL_POWERS.length) {
        const aligned = b * SMALL_POWERS[shift]!;
        if (aligned <= SAFE && aligned >= -SAFE) return Decimal.#sum(a, aligned, scale);
      } else if (shift < 0 && -shift < SMALL_POWERS.length) {
        const aligned = a * SMALL_POWERS[-shift]!;
        if (aligned <= SAFE && aligned >= -SAFE) return Decimal.#sum(aligned, b, other.scale);
      }
    }
    const common = Math.max(scale, other.scale);
    const [one, two] = [this.#at(common), other.#at(common)];
    if (this.divisor === 1n && other.divisor === 1n) return Decimal.#made(one + two, common);
    return Decimal.#fraction(one * other.divisor + two * this.divisor, this.divisor * other.divisor, common);
  }

  /** The difference. @throws NumberTooGreat */
  minus(other: Decimal): Decimal {
    return this.plus(other.neg());
  }

  /** The product. @throws NumberTooGreat */
  times(other: Decimal): Decimal {
    const { coefficient: a, scale } = this;
    const { coefficient: b } = other;
    if (typeof a === 'number' && typeof b === 'number') {
      const product = a * b;
      if (product <= SAFE && product >= -SAFE) return Decimal.#made(product, scale + other.scale);
    }
    const [product, divisor] = [BigInt(a) * BigInt(b), this.divisor * other.divisor];
    if (divisor === 1n) return Decimal.#made(product, scale + other.scale);
    return Decimal.#fraction(product, divisor, scale + other.scale);
  }

  /** The quotient, exact also where it does not end as a decimal. @throws RangeError by zero; NumberTooGreat */
  div(other: Decimal): Decimal {
    const { coefficient: a, scale } = this;
    const { coefficient: b } = other;
    if (b === 0) throw new RangeError('Division by zero.');
    if (a === 0) return Decimal.ZERO;
    if (typeof a === 'number' && typeof b === 'number' && a % b === 0) return Decimal.#made(a / b, scale - other.scale);
    return Decimal.#fraction(BigInt(a) * other.divisor, BigInt(b) * this.divisor, scale - other.scale);
  }

  /** The same digits with the point moved to the right: 0.125 by 2 is 12.5. @throws NumberTooGreat */
  shifted(places: number): Decimal {
    const { coefficient, scale, divisor } = this;
    return divisor === 1n
      ? Decimal.#made(coefficient, scale - places)
      : Decimal.#fraction(BigInt(coefficient), divisor, scale - places);
  }

  /** The whole quotient, towards minus infinity: `-7` by `2` is `-4`. @throws RangeError by zero; NumberTooGreat */
  divFloor(other: Decimal): Decimal {
    return this.div(other).round(0, 'floor');
  }

  /**
   * A power: exact where it has an exact form of at most ten thousand digits (1.05^4, 8^(1/3), 2^-2), otherwise to forty
   * significant digits.
   * @throws NumberTooGreat; RangeError where the power has no real value
   */
  pow(exponent: Decimal): Decimal {
    if (exponent.isZero()) return Decimal.ONE;
    if (exponent.isNegative()) return Decimal.ONE.div(this.pow(exponent.neg()));
    if (this.isZero()) return this;
    const [numerator, degree] = exponent.#asFraction();
    const root = this.#root(degree);
    return (root && root.#wholePower(numerator)) ?? this.#approximatePower(exponent);
  }

  /** The exact root of a whole degree; undefined where it has no exact form. */
  #root(degree: bigint): Decimal | undefined {
    if (degree === 1n) return this;
    // Above that degree the root of a number in bounds is not a whole one.
    if (degree > MOST_DIGITS * 4 || this.isNegative()) return undefined;
    const [numerator, divisor] = this.#asFraction();
    const [one, other] = [wholeRoot(numerator, degree), wholeRoot(divisor, degree)];
    return one === undefined || other === undefined ? undefined : Decimal.#fraction(one, other, 0);
  }

  /** A power with a whole exponent above zero; undefined where its exact form has too many digits. */
  #wholePower(exponent: bigint): Decimal | undefined {
    const digits = digitCount(BigInt(this.coefficient)) + digitCount(this.divisor) - 2;
    if (digits > 0 && BigInt(digits) * exponent > MOST_DIGITS) return undefined;
    if (BigInt(Math.abs(this.scale)) * exponent > MOST_DIGITS || exponent > 4 * MOST_DIGITS) {
      return this.abs().equals(Decimal.ONE) ? (exponent % 2n === 0n ? Decimal.ONE : this) : undefined;
    }
    const [coefficient, scale] = [BigInt(this.coefficient) ** exponent, this.scale * Number(exponent)];
    if (this.divisor === 1n) return Decimal.#made(coefficient, scale);
    return Decimal.#fraction(coefficient, this.divisor ** exponent, scale);
  }

  #approximatePower(exponent: Decimal): Decimal {
    const Library = PowerLibrary.clone({ precision: PRECISION + 10, toExpNeg: -MOST_DIGITS, toExpPos: MOST_DIGITS });
    const power = new Library(this.#significant(PRECISION + 20)).pow(exponent.#significant(PRECISION + 20));
    if (power.isNaN()) throw new RangeError('This power has no value.');
    if (!power.isFinite() || power.e >= MOST_WHOLE_DIGITS) throw new NumberTooGreat();
    if (power.e < -MOST_DIGITS / 2) throw new NumberTooGreat();
    return Decimal.of(power.toSignificantDigits(PRECISION).toFixed());
  }

  neg(): Decimal {
    return this.coefficient === 0 ? this : new Decimal(-this.coefficient, this.scale, this.divisor);
  }

  abs(): Decimal {
    return this.isNegative() ? this.neg() : this;
  }

  isZero(): boolean {
    return this.coefficient === 0;
  }

  isNegative(): boolean {
    return this.coefficient < 0;
  }

  isInteger(): boolean {
    return this.divisor === 1n && (this.scale <= 0 || this.#stripped().scale <= 0);
  }

  /** −1, 0 or 1. */
  sign(): number {
    return this.coefficient > 0 ? 1 : this.coefficient < 0 ? -1 : 0;
  }

  comparedTo(other: Decimal): number {
    if (this.scale === other.scale && this.divisor === other.divisor) {
      return this.coefficient < other.coefficient ? -1 : this.coefficient > other.coefficient ? 1 : 0;
    }
    if (this.sign() !== other.sign()) return this.sign() < other.sign() ? -1 : 1;
    const scale = Math.max(this.scale, other.scale);
    const [one, two] = [this.#at(scale) * other.divisor, other.#at(scale) * this.divisor];
    return one < two ? -1 : one > two ? 1 : 0;
  }

  equals(other: Decimal): boolean {
    return this.comparedTo(other) === 0;
  }

  /** Rounds to `digits` decimals; negative digits round to tens, hundreds and so on. */
  round(digits: number, rounding: Rounding = 'half-away'): Decimal {
    const { coefficient, divisor } = this;
    const excess = this.scale - digits;
    if (excess <= 0 && divisor === 1n) return this;
    if (typeof coefficient === 'number' && excess < SMALL_POWERS.length) {
      return Decimal.#made(roundedSafeQuotient(coefficient, SMALL_POWERS[excess]!, rounding), digits);
    }
    const dividend = excess < 0 ? BigInt(coefficient) * power10(-excess) : BigInt(coefficient);
    return Decimal.#shorter(
      roundedQuotient(dividend, excess > 0 ? divisor * power10(excess) : divisor, rounding),
      digits,
    );
  }

  /** How many decimals it has, without zeros at the end; infinitely many where it does not end. */
  decimalPlaces(): number {
    return this.divisor === 1n ? Math.max(0, this.#stripped().scale) : Infinity;
  }

  /**
   * Plain decimal text without an exponent: exactly `digits` decimals, rounded; or as many as it has, and forty
   * significant digits of a fraction that does not end.
   */
  toFixed(digits?: number): string {
    if (digits === undefined && this.divisor !== 1n) return this.#significant(PRECISION);
    const value = digits === undefined ? this.#stripped() : this.round(digits);
    const places = digits ?? Math.max(0, value.scale);
    const all = value.#at(places).toString();
    const sign = all.startsWith('-') ? '-' : '';
    const figures = all.slice(sign.length).padStart(places + 1, '0');
    if (places === 0) return sign + figures;
    return `${sign}${figures.slice(0, -places)}.${figures.slice(-places)}`;
  }

  /** The nearest binary number: for charts and counts, never for money. */
  toNumber(): number {
    return Number(this.toFixed());
  }

  toString(): string {
    return this.toFixed();
  }

  toJSON(): string {
    return this.toFixed();
  }

  /** Whole numbers, without a common factor, that are to each other as these numbers are. */
  static inRatio(values: readonly Decimal[]): bigint[] {
    const fractions = values.map((value) => value.#asFraction());
    const common = fractions.reduce(
      (product, [, divisor]) => (product / commonDivisor(product, divisor)) * divisor,
      1n,
    );
    const wholes = fractions.map(([numerator, divisor]) => (numerator * common) / divisor);
    const factor = wholes.reduce(commonDivisor, 0n) || 1n;
    return wholes.map((whole) => whole / factor);
  }

  /** The coefficient it has at a scale that is not smaller than its own. */
  #at(scale: number): bigint {
    const whole = BigInt(this.coefficient);
    return scale === this.scale ? whole : whole * power10(scale - this.scale);
  }

  /** As a fraction of two whole numbers in lowest terms, the lower one above zero. */
  #asFraction(): [bigint, bigint] {
    const whole = BigInt(this.coefficient);
    if (this.scale <= 0) return [whole * power10(-this.scale), this.divisor];
    const [below, factor] = [power10(this.scale), commonDivisor(whole, power10(this.scale))];
    return [whole / factor, (below / factor) * this.divisor];
  }

  /** Plain text, rounded to some significant digits. */
  #significant(digits: number): string {
    // By the digits above and below the fraction bar, the first digit's place is this one or the next.
    const size = digitCount(BigInt(this.coefficient)) - digitCount(this.divisor) - this.scale;
    const rounded = this.round(digits - size);
    const found = digitCount(rounded.#at(Math.max(rounded.scale, digits - size)));
    return (found > digits ? this.round(digits - size - (found - digits)) : rounded).toFixed();
  }

  /** Without zeros at the end of its decimals. */
  #stripped(): Decimal {
    let { coefficient, scale } = this;
    if (coefficient === 0) return Decimal.ZERO;
    if (typeof coefficient === 'bigint') {
      while (scale > 0 && coefficient % 10n === 0n) [coefficient, scale] = [coefficient / 10n, scale - 1];
      return Decimal.#shorter(coefficient, scale);
    }
    while (scale > 0 && coefficient % 10 === 0) [coefficient, scale] = [coefficient / 10, scale - 1];
    return new Decimal(coefficient, scale, 1n);
  }

  /** The sum of two safe coefficients of one scale, which may itself be no safe one. */
  static #sum(one: number, other: number, scale: number): Decimal {
    const sum = one + other;
    return sum <= SAFE && sum >= -SAFE ? Decimal.#made(sum, scale) : Decimal.#made(BigInt(one) + BigInt(other), scale);
  }

  /** A decimal in bounds, its coefficient a plain integer where it is a safe one. */
  static #made(coefficient: number | bigint, scale: number): Decimal {
    if (typeof coefficient === 'bigint') {
      if (coefficient > SAFE || coefficient < -SAFE) return new Decimal(coefficient, scale, 1n).#inBounds();
      coefficient = Number(coefficient);
    }
    if (coefficient === 0) return Decimal.ZERO;
    const made = new Decimal(coefficient, scale, 1n);
    return scale <= 200 && scale >= -200 ? made : made.#inBounds();
  }

  /**
   * A decimal made of one in bounds by leaving digits out. It may pass the bound by a last nine that is rounded up, and is
   * printed all the same.
   */
  static #shorter(coefficient: bigint, scale: number): Decimal {
    const isSafe = coefficient <= SAFE && coefficient >= -SAFE;
    return isSafe ? Decimal.#made(coefficient, scale) : new Decimal(coefficient, scale, 1n);
  }

  /** A quotient of whole numbers in its one form: in lowest terms, and a decimal if it ends. */
  static #fraction(dividend: bigint, divisor: bigint, scale: number): Decimal {
    if (dividend === 0n) return Decimal.ZERO;
    const factor = commonDivisor(dividend, divisor);
    let [coefficient, left] =
      divisor < 0n ? [-dividend / factor, -divisor / factor] : [dividend / factor, divisor / factor];
    // Factors of ten go from the divisor to the scale: x / 2 is 5x / 10.
    for (; left % 2n === 0n; left /= 2n, scale++) coefficient *= 5n;
    for (; left % 5n === 0n; left /= 5n, scale++) coefficient *= 2n;
    return left === 1n ? Decimal.#made(coefficient, scale) : new Decimal(coefficient, scale, left).#inBounds();
  }

  /** @throws NumberTooGreat */
  #inBounds(): Decimal {
    const { coefficient, scale, divisor } = this;
    const whole = magnitude(BigInt(coefficient));
    if (whole < USUAL && divisor < USUAL && scale >= -200 && scale <= MOST_DIGITS - 100) return this;
    const [digits, below] = [digitCount(whole), digitCount(divisor)];
    if (digits - scale - below >= MOST_WHOLE_DIGITS || Math.max(digits, below, scale) > MOST_DIGITS)
      throw new NumberTooGreat();
    return this;
  }
}

/** Rounds to `digits` decimals; negative digits round to tens, hundreds and so on. */
export function roundTo(value: Decimal, digits: number, rounding: Rounding = 'half-away'): Decimal {
  return value.round(digits, rounding);
}
