import { magnitude } from './integers';

/** How a half is rounded: away from zero (the trade's default) or to the even neighbour. */
export const ROUNDING_MODES = ['half-away', 'half-even'] as const;
export type RoundingMode = (typeof ROUNDING_MODES)[number];
/** Rounding of functions that say their direction: away from zero, towards it, and towards either infinity. */
export type Rounding = RoundingMode | 'up' | 'down' | 'ceiling' | 'floor';

/** The quotient of two whole numbers, rounded to a whole number. The divisor is not zero. */
export function roundedQuotient(dividend: bigint, divisor: bigint, rounding: Rounding): bigint {
  const quotient = dividend / divisor;
  const remainder = dividend % divisor;
  if (remainder === 0n) return quotient;
  const negative = remainder < 0n !== divisor < 0n;
  const half = compared(magnitude(remainder) * 2n, magnitude(divisor));
  if (!goesAway(rounding, negative, half, quotient % 2n !== 0n)) return quotient;
  return quotient + (negative ? -1n : 1n);
}

/** The same for safe integers, twice the divisor being a safe one too: nearly every rounding of a document is one. */
export function roundedSafeQuotient(dividend: number, divisor: number, rounding: Rounding): number {
  const remainder = dividend % divisor;
  const quotient = (dividend - remainder) / divisor;
  if (remainder === 0) return quotient;
  const negative = remainder < 0;
  const half = compared(Math.abs(remainder) * 2, divisor);
  if (!goesAway(rounding, negative, half, quotient % 2 !== 0)) return quotient;
  return quotient + (negative ? -1 : 1);
}

/** Whether rounding steps away from zero: by the sign, how the rest compares with a half, and whether the quotient is odd. */
function goesAway(rounding: Rounding, negative: boolean, half: number, odd: boolean): boolean {
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
      return !negative;
    case 'floor':
      return negative;
  }
}

function compared<Whole extends number | bigint>(one: Whole, other: Whole): number {
  return one < other ? -1 : one > other ? 1 : 0;
}
