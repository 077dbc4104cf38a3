import DecimalLibrary from 'decimal.js';

/**
 * The one decimal type of Lumbix. Forty significant digits: enough for the product of any two CRM decimals
 * (OData `Edm.Decimal` allows 34) with room before rounding. Never construct from a binary fraction.
 */
export const Decimal = DecimalLibrary.clone({
  precision: 40,
  rounding: DecimalLibrary.ROUND_HALF_UP,
  toExpNeg: -50,
  toExpPos: 50,
});
export type Decimal = DecimalLibrary;

/** How a half is rounded: away from zero (the trade's default) or to the even neighbour. */
export type RoundingMode = 'half-away' | 'half-even';

/** Rounds to `digits` decimals; negative digits round to tens, hundreds and so on. */
export function roundTo(value: Decimal, digits: number, mode: RoundingMode = 'half-away'): Decimal {
  const rule = mode === 'half-even' ? DecimalLibrary.ROUND_HALF_EVEN : DecimalLibrary.ROUND_HALF_UP;
  if (digits >= 0) return value.toDecimalPlaces(digits, rule);
  const unit = new Decimal(10).pow(-digits);
  return value.div(unit).toDecimalPlaces(0, rule).times(unit);
}
