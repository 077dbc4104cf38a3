import { Decimal, type RoundingMode } from './decimal';

/**
 * Splits a total by weights into parts of whole units (10^-digits) that add up to the total exactly: each part is rounded
 * down first, and the units left over go to the parts with the largest remainders, the earlier of two equal ones first.
 * A total below zero splits as the same total above zero does, each part with the other sign. Weights may be negative,
 * as long as they do not add up to zero; nothing splits into nothing by any.
 * @throws RangeError when the weights add up to zero and the total does not, or the total is not in whole units
 */
export function allocate(total: Decimal, weights: readonly Decimal[], digits: number): Decimal[] {
  if (total.isZero()) return weights.map(() => Decimal.ZERO);
  if (total.isNegative()) return allocate(total.neg(), weights, digits).map((part) => part.neg());
  if (total.decimalPlaces() > digits) throw new RangeError('The total is not in whole units.');
  const wholes = Decimal.inRatio(weights);
  const sum = wholes.reduce((one, other) => one + other, 0n);
  if (sum === 0n) throw new RangeError('The weights add up to zero.');
  const units = BigInt(total.shifted(digits).toFixed(0));
  // Over a positive divisor, so that shares keep the sign of their weight.
  const [sign, divisor] = sum < 0n ? [-1n, -sum] : [1n, sum];
  const parts = byLargestRemainder(
    wholes.map((weight) => sign * units * weight),
    divisor,
    units,
  );
  return parts.map((part) => Decimal.of(part.toString()).shifted(-digits));
}

/**
 * Rounds amounts to `digits` decimals so that they add up to their exact sum, rounded once: each is rounded down first, and
 * the units left over go to those with the largest remainders, the earlier of two equal ones first. Amounts whose sum is
 * below zero round as the same amounts with the other sign do.
 */
export function roundTogether(amounts: readonly Decimal[], digits: number, rounding: RoundingMode): Decimal[] {
  const sum = amounts.reduce((one, other) => one.plus(other), Decimal.ZERO);
  if (sum.isNegative())
    return roundTogether(
      amounts.map((each) => each.neg()),
      digits,
      rounding,
    ).map((each) => each.neg());
  const units = [...amounts.map((each) => each.shifted(digits)), Decimal.ONE];
  // In ratio to one unit, which stands last: whole numbers over a common divisor.
  const wholes = Decimal.inRatio(units);
  const divisor = wholes.pop()!;
  const total = BigInt(sum.round(digits, rounding).shifted(digits).toFixed(0));
  return byLargestRemainder(wholes, divisor, total).map((part) => Decimal.of(part.toString()).shifted(-digits));
}

/** Whole parts of `total` for shares of a positive divisor, which add up to it but for less than one each. */
function byLargestRemainder(shares: readonly bigint[], divisor: bigint, total: bigint): bigint[] {
  const parts = shares.map((share, position) => {
    const remainder = ((share % divisor) + divisor) % divisor;
    return { position, floor: (share - remainder) / divisor, remainder };
  });
  let left = total - parts.reduce((one, { floor }) => one + floor, 0n);
  const result = parts.map(({ floor }) => floor);
  // Sorting keeps the order of equal ones.
  for (const { position } of parts.toSorted(
    (a, b) => Number(b.remainder > a.remainder) - Number(b.remainder < a.remainder),
  )) {
    if (left === 0n) break;
    result[position]! += 1n;
    left -= 1n;
  }
  return result;
}
