import PowerLibrary from 'decimal.js';

/** How a half is rounded: away from zero (the trade's default) or to the even neighbour. */
export type RoundingMode = 'half-away' | 'half-even';
/** Rounding of functions that say their direction: away from zero, towards it, and towards either infinity. */
export type Rounding = RoundingMode | 'up' | 'down' | 'ceiling' | 'floor';

/**
 * Significant digits kept where a result has more (a quotient without end, the product of very long factors): enough
 * for the product of any two CRM decimals (OData `Edm.Decimal` allows 34) with room before rounding.
 */
const PRECISION = 40;
const PRECISION_BOUND = 10n ** BigInt(PRECISION);
/** Beyond this many places before or behind the point a number is refused. */
const FURTHEST = 9_999;
const SAFE = Number.MAX_SAFE_INTEGER;

const SMALL_POWERS = Array.from({ length: 16 }, (_, exponent) => 10 ** exponent);
const POWERS: bigint[] = [1n];

/** A number with more places than any document prints. */
export class NumberTooGreat extends Error {
  constructor() {
    super('This number has more digits than can be computed with.');
    this.name = 'NumberTooGreat';
  }
}

/**
 * The one number of Lumbix: exact decimal, `coefficient × 10^-scale`, immutable. Sums and products are exact up to
 * forty significant digits; never construct one from a binary fraction. The coefficient is a plain integer as long as
 * it is a safe one, which nearly every price and quantity is: arithmetic on those is a hundred times as fast as on
 * digit arrays.
 */
export class Decimal {
  static readonly ZERO = new Decimal(0, 0);
  static readonly ONE = new Decimal(1, 0);

  private constructor(
    readonly coefficient: number | bigint,
    readonly scale: number,
  ) {}

  /**
   * A whole number, or decimal text such as `-12.50` or `1e-7`.
   * @throws TypeError for a text that is no number or a number that is not whole; NumberTooGreat
   */
  static of(source: string | number): Decimal {
    if (typeof source === 'number') {
      if (!Number.isSafeInteger(source)) throw new TypeError(`${source} is not a safe whole number.`);
      return source === 0 ? Decimal.ZERO : new Decimal(source, 0);
    }
    const match = /^([+-]?)(\d*)(?:\.(\d*))?(?:[eE]([+-]?\d{1,6}))?$/.exec(source);
    if (!match || (!match[2] && !match[3])) throw new TypeError(`“${source}” is not a decimal number.`);
    const [, sign, whole = '', fraction = '', exponent = '0'] = match;
    const digits = whole + fraction;
    const scale = fraction.length - Number(exponent);
    if (digits.length <= 15) return made(Number(digits) * (sign === '-' ? -1 : 1), scale);
    const coefficient = BigInt(digits);
    return made(sign === '-' ? -coefficient : coefficient, scale);
  }

  /** @internal Only `made` constructs, so that every number is in bounds. */
  static raw(coefficient: number | bigint, scale: number): Decimal {
    return new Decimal(coefficient, scale);
  }

  plus(other: Decimal): Decimal {
    const { coefficient: a, scale } = this;
    const { coefficient: b } = other;
    if (scale === other.scale && typeof a === 'number' && typeof b === 'number') return made(a + b, scale);
    return addAligned(this, other);
  }

  minus(other: Decimal): Decimal {
    return this.plus(other.neg());
  }

  times(other: Decimal): Decimal {
    const { coefficient: a, scale } = this;
    const { coefficient: b } = other;
    if (typeof a === 'number' && typeof b === 'number') {
      const product = a * b;
      if (product <= SAFE && product >= -SAFE) return made(product, scale + other.scale);
    }
    return made(BigInt(a) * BigInt(b), scale + other.scale);
  }

  /** The same digits with the point moved to the right: 0.125 by 2 is 12.5. */
  shifted(places: number): Decimal {
    return made(this.coefficient, this.scale - places);
  }

  /** The quotient, exact if it ends within forty significant digits, otherwise rounded there. @throws RangeError by zero */
  div(other: Decimal): Decimal {
    if (other.isZero()) throw new RangeError('Division by zero.');
    if (this.isZero()) return Decimal.ZERO;
    const dividend = BigInt(this.coefficient);
    const divisor = BigInt(other.coefficient);
    const shift = Math.max(0, PRECISION + 1 - digitCount(dividend) + digitCount(divisor));
    const shifted = dividend * power10(shift);
    const quotient = shifted / divisor;
    const scale = this.scale - other.scale + shift;
    if (shifted % divisor === 0n) return stripped(made(quotient, scale));
    // One more digit says that there is a rest, so that rounding to the precision rounds once and not twice.
    const rest = shifted < 0n === divisor < 0n ? 1n : -1n;
    return made(quotient * 10n + rest, scale + 1);
  }

  /** The whole quotient, towards minus infinity: `-7` by `2` is `-4`. @throws RangeError by zero */
  divFloor(other: Decimal): Decimal {
    if (other.isZero()) throw new RangeError('Division by zero.');
    const scale = Math.max(this.scale, other.scale, 0);
    return made(divideRounded(coefficientAt(this, scale), coefficientAt(other, scale), 'floor'), 0);
  }

  /**
   * A power. Whole exponents are exact to forty digits; others go through a library of many digits.
   * @throws NumberTooGreat; RangeError where the power has no real value
   */
  pow(exponent: Decimal): Decimal {
    if (!exponent.isInteger()) {
      const precise = PowerLibrary.clone({ precision: PRECISION, toExpNeg: -FURTHEST, toExpPos: FURTHEST });
      const power = new precise(this.toFixed()).pow(exponent.toFixed());
      if (!power.isFinite()) throw new RangeError('This power has no value.');
      return Decimal.of(power.toFixed());
    }
    let left = Math.abs(exponent.toNumber());
    if (this.isZero() && exponent.isNegative()) throw new RangeError('Division by zero.');
    if (left > FURTHEST) throw new NumberTooGreat();
    let result = Decimal.ONE;
    let square = this.shifted(0);
    for (; left > 0; left = Math.floor(left / 2)) {
      if (left % 2 === 1) result = result.times(square);
      if (left > 1) square = square.times(square);
    }
    return exponent.isNegative() ? Decimal.ONE.div(result) : result;
  }

  neg(): Decimal {
    return this.isZero() ? this : new Decimal(-this.coefficient, this.scale);
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
    return this.scale <= 0 || stripped(this).scale <= 0;
  }

  /** −1, 0 or 1. */
  sign(): number {
    return this.coefficient > 0 ? 1 : this.coefficient < 0 ? -1 : 0;
  }

  comparedTo(other: Decimal): number {
    if (this.scale === other.scale) {
      return this.coefficient < other.coefficient ? -1 : this.coefficient > other.coefficient ? 1 : 0;
    }
    if (this.sign() !== other.sign()) return this.sign() < other.sign() ? -1 : 1;
    const scale = Math.max(this.scale, other.scale);
    const [one, two] = [coefficientAt(this, scale), coefficientAt(other, scale)];
    return one < two ? -1 : one > two ? 1 : 0;
  }

  equals(other: Decimal): boolean {
    return this.comparedTo(other) === 0;
  }

  /** Rounds to `digits` decimals; negative digits round to tens, hundreds and so on. */
  round(digits: number, rounding: Rounding = 'half-away'): Decimal {
    const excess = this.scale - digits;
    if (excess <= 0) return this;
    const { coefficient } = this;
    if (typeof coefficient === 'number' && excess < SMALL_POWERS.length) {
      return made(roundedQuotient(coefficient, SMALL_POWERS[excess]!, rounding), digits);
    }
    if (excess > FURTHEST) return roundTiny(this, digits, rounding);
    return made(divideRounded(BigInt(coefficient), power10(excess), rounding), digits);
  }

  /** How many decimals it has, without zeros at the end. */
  decimalPlaces(): number {
    return Math.max(0, stripped(this).scale);
  }

  /** Plain decimal text without an exponent: as many decimals as it has, or exactly `digits` of them, rounded. */
  toFixed(digits?: number): string {
    const value = digits === undefined ? stripped(this) : this.round(digits);
    const places = digits ?? Math.max(0, value.scale);
    const all = coefficientAt(value, places).toString();
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
}

/** Rounds to `digits` decimals; negative digits round to tens, hundreds and so on. */
export function roundTo(value: Decimal, digits: number, rounding: Rounding = 'half-away'): Decimal {
  return value.round(digits, rounding);
}

/** A number in bounds: small coefficients as plain integers, long ones cut to forty significant digits. */
function made(coefficient: number | bigint, scale: number): Decimal {
  if (typeof coefficient === 'number') {
    if (coefficient <= SAFE && coefficient >= -SAFE) {
      if (coefficient === 0) return Decimal.ZERO ?? Decimal.raw(0, 0);
      if (scale > FURTHEST || scale < -FURTHEST) return outOfBounds(scale);
      return Decimal.raw(coefficient, scale);
    }
    return made(BigInt(coefficient), scale);
  }
  if (coefficient <= SAFE && coefficient >= -SAFE) return made(Number(coefficient), scale);
  if (coefficient >= PRECISION_BOUND || coefficient <= -PRECISION_BOUND) {
    const excess = digitCount(coefficient) - PRECISION;
    return made(divideRounded(coefficient, power10(excess), 'half-away'), scale - excess);
  }
  if (scale > FURTHEST || scale < -FURTHEST) return outOfBounds(scale);
  return Decimal.raw(coefficient, scale);
}

/** What is too small to tell from zero is zero; what is too great is refused. */
function outOfBounds(scale: number): Decimal {
  if (scale > 0) return Decimal.ZERO;
  throw new NumberTooGreat();
}

function addAligned(one: Decimal, other: Decimal): Decimal {
  if (one.isZero()) return other;
  if (other.isZero()) return one;
  const scale = Math.max(one.scale, other.scale);
  const [a, b] = [alignedNumber(one, scale), alignedNumber(other, scale)];
  if (a !== undefined && b !== undefined && Math.abs(a + b) <= SAFE) return made(a + b, scale);
  return made(coefficientAt(one, scale) + coefficientAt(other, scale), scale);
}

function alignedNumber({ coefficient, scale }: Decimal, wanted: number): number | undefined {
  if (typeof coefficient !== 'number' || wanted - scale >= SMALL_POWERS.length) return undefined;
  const aligned = coefficient * SMALL_POWERS[wanted - scale]!;
  return aligned <= SAFE && aligned >= -SAFE ? aligned : undefined;
}

/** The coefficient a number has at another scale; exact for a scale that is not smaller. */
function coefficientAt({ coefficient, scale }: Decimal, wanted: number): bigint {
  const whole = BigInt(coefficient);
  return wanted >= scale ? whole * power10(wanted - scale) : whole / power10(scale - wanted);
}

/** Without zeros at the end of its decimals. */
function stripped(value: Decimal): Decimal {
  let { coefficient, scale } = value;
  if (coefficient === 0) return Decimal.ZERO;
  if (typeof coefficient === 'bigint') {
    while (scale > 0 && coefficient % 10n === 0n) [coefficient, scale] = [coefficient / 10n, scale - 1];
    return made(coefficient, scale);
  }
  while (scale > 0 && coefficient % 10 === 0) [coefficient, scale] = [coefficient / 10, scale - 1];
  return Decimal.raw(coefficient, scale);
}

function roundTiny(value: Decimal, digits: number, rounding: Rounding): Decimal {
  const away = rounding === 'up' || (rounding === 'ceiling' && value.sign() > 0) || (rounding === 'floor' && value.isNegative()); // prettier-ignore
  return away ? made(value.sign(), digits) : Decimal.ZERO;
}

/** A quotient of safe integers, rounded to a whole number. */
function roundedQuotient(dividend: number, divisor: number, rounding: Rounding): number {
  const remainder = dividend % divisor;
  const quotient = (dividend - remainder) / divisor;
  if (remainder === 0) return quotient;
  return goesAway(rounding, Math.sign(remainder), compareNumbers(Math.abs(remainder) * 2, divisor), quotient % 2 !== 0)
    ? quotient + Math.sign(remainder)
    : quotient;
}

function compareNumbers(one: number | bigint, other: number | bigint): number {
  return one < other ? -1 : one > other ? 1 : 0;
}

function divideRounded(dividend: bigint, divisor: bigint, rounding: Rounding): bigint {
  const quotient = dividend / divisor;
  const remainder = dividend % divisor;
  if (remainder === 0n) return quotient;
  const negative = remainder < 0n !== divisor < 0n;
  const [size, unit] = [remainder < 0n ? -remainder : remainder, divisor < 0n ? -divisor : divisor];
  const away = goesAway(rounding, negative ? -1 : 1, compareNumbers(size * 2n, unit), quotient % 2n !== 0n);
  return away ? quotient + (negative ? -1n : 1n) : quotient;
}

/** Whether rounding steps away from zero, given the sign, how the rest compares with a half, and whether the quotient is odd. */
function goesAway(rounding: Rounding, sign: number, half: number, odd: boolean): boolean {
  switch (rounding) {
    case 'half-away':
      return half >= 0;
    case 'half-even':
      return half > 0 || (half === 0 && odd);
    case 'up':
      return true;
    case 'down':
      return false;
    case 'ceiling':
      return sign > 0;
    case 'floor':
      return sign < 0;
  }
}

function digitCount(value: bigint): number {
  return (value < 0n ? -value : value).toString().length;
}

function power10(exponent: number): bigint {
  return (POWERS[exponent] ??= 10n ** BigInt(exponent));
}
