import { describe, expect, it } from 'vitest';
import { roundedQuotient, roundedSafeQuotient, ROUNDING_MODES, type Rounding } from './rounding';

/** Quotients by 10 in every direction, worked out by hand: below, at and above a half, of even and odd neighbours. */
const BY_TEN: readonly [dividend: number, expected: Record<Rounding, number>][] = [
  [24, { 'half-away': 2, 'half-even': 2, up: 3, down: 2, ceiling: 3, floor: 2 }],
  [25, { 'half-away': 3, 'half-even': 2, up: 3, down: 2, ceiling: 3, floor: 2 }],
  [26, { 'half-away': 3, 'half-even': 3, up: 3, down: 2, ceiling: 3, floor: 2 }],
  [35, { 'half-away': 4, 'half-even': 4, up: 4, down: 3, ceiling: 4, floor: 3 }],
  [1, { 'half-away': 0, 'half-even': 0, up: 1, down: 0, ceiling: 1, floor: 0 }],
  [5, { 'half-away': 1, 'half-even': 0, up: 1, down: 0, ceiling: 1, floor: 0 }],
  [15, { 'half-away': 2, 'half-even': 2, up: 2, down: 1, ceiling: 2, floor: 1 }],
  [20, { 'half-away': 2, 'half-even': 2, up: 2, down: 2, ceiling: 2, floor: 2 }],
  [0, { 'half-away': 0, 'half-even': 0, up: 0, down: 0, ceiling: 0, floor: 0 }],
];

describe('a rounded quotient', () => {
  const cases = BY_TEN.flatMap(([dividend, expected]) =>
    Object.entries(expected).map(([rule, value]) => [dividend, rule as Rounding, value] as const),
  );

  it.each(cases)('%i by 10, %s, is %i', (dividend, rule, expected) => {
    expect(roundedSafeQuotient(dividend, 10, rule)).toBe(expected);
    expect(roundedQuotient(BigInt(dividend), 10n, rule)).toBe(BigInt(expected));
  });

  it.each(cases.filter(([, rule]) => !['ceiling', 'floor'].includes(rule)))(
    '%i by 10, %s, below zero mirrors it',
    (dividend, rule, expected) => {
      expect(roundedSafeQuotient(-dividend, 10, rule) + expected).toBe(0);
      expect(roundedQuotient(BigInt(-dividend), 10n, rule)).toBe(BigInt(-expected));
      expect(roundedQuotient(BigInt(dividend), -10n, rule)).toBe(BigInt(-expected));
    },
  );

  it('goes towards one end of the number line below zero too', () => {
    expect([roundedSafeQuotient(-21, 10, 'ceiling'), roundedSafeQuotient(-21, 10, 'floor')]).toEqual([-2, -3]);
    expect([roundedQuotient(-21n, 10n, 'ceiling'), roundedQuotient(-21n, 10n, 'floor')]).toEqual([-2n, -3n]);
  });

  it('may go either way at a half, as a sheet declares it', () => {
    expect(ROUNDING_MODES.map((mode) => [mode, roundedQuotient(25n, 10n, mode)])).toEqual([
      ['half-away', 3n],
      ['half-even', 2n],
    ]);
  });

  it('of the largest safe integers is exact', () => {
    const most = Number.MAX_SAFE_INTEGER;
    expect(roundedSafeQuotient(most, 10, 'half-away')).toBe(900_719_925_474_099);
    expect(roundedSafeQuotient(most, 10 ** 15, 'half-away')).toBe(9);
    expect(roundedSafeQuotient(-most, 2, 'half-even')).toBe(-4_503_599_627_370_496);
  });
});
