import { Decimal } from './decimal';

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
  const parts = wholes.map((weight, position) => {
    // Over a positive divisor, so that the remainder is never negative.
    const [share, divisor] = sum < 0n ? [-units * weight, -sum] : [units * weight, sum];
    const remainder = ((share % divisor) + divisor) % divisor;
    return { position, floor: (share - remainder) / divisor, remainder };
  });
  let left = units - parts.reduce((one, { floor }) => one + floor, 0n);
  const result = parts.map(({ floor }) => floor);
  for (const { position } of parts.toSorted((a, b) =>
    a.remainder === b.remainder ? a.position - b.position : a.remainder > b.remainder ? -1 : 1,
  )) {
    if (left === 0n) break;
    result[position]! += 1n;
    left -= 1n;
  }
  return result.map((part) => Decimal.of(part.toString()).shifted(-digits));
}
