import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { minorUnit, roundMoney } from './currency';
import { Decimal, roundTo } from './decimal';
import { formatAmount, formatMoney, formatPercent } from './format';

describe('rounding', () => {
  it.each([
    ['2.345', 2, '2.35'],
    ['-2.345', 2, '-2.35'],
    ['2.344999', 2, '2.34'],
    ['1250', -2, '1300'],
    ['0.5', 0, '1'],
  ])('rounds %s to %i digits, half away from zero: %s', (value, digits, rounded) => {
    expect(roundTo(Decimal.of(value), digits).toFixed()).toBe(rounded);
  });

  it('rounds half to even where the sheet says so', () => {
    expect(roundTo(Decimal.of('2.345'), 2, 'half-even').toFixed()).toBe('2.34');
    expect(roundTo(Decimal.of('2.355'), 2, 'half-even').toFixed()).toBe('2.36');
  });

  it('is idempotent', () => {
    const decimals = fc.tuple(fc.bigInt({ min: -(10n ** 18n), max: 10n ** 18n }), fc.integer({ min: 0, max: 12 }));
    fc.assert(
      fc.property(decimals, fc.integer({ min: -3, max: 8 }), ([digits, scale], to) => {
        const once = roundTo(Decimal.of(digits.toString()).shifted(-scale), to);
        expect(roundTo(once, to).equals(once)).toBe(true);
      }),
    );
  });

  it('knows the minor units of ISO 4217', () => {
    expect(['EUR', 'JPY', 'KWD', 'CLF'].map(minorUnit)).toEqual([2, 0, 3, 4]);
    expect(roundMoney(Decimal.of('79.5'), 'JPY').toFixed()).toBe('80');
  });

  it('adds tenths without a remainder', () => {
    expect(Decimal.of('0.1').plus(Decimal.of('0.2')).toFixed()).toBe('0.3');
  });
});

describe('formatting', () => {
  it('keeps the decimals a price came with, and shows a minor unit at least', () => {
    expect(formatAmount(Decimal.of('0.4375'), 'GBP', 'en-GB')).toBe('0.4375');
    expect(formatAmount(Decimal.of('1840'), 'GBP', 'en-GB')).toBe('1,840.00');
    expect(formatAmount(Decimal.of('3189680'), 'JPY', 'en-GB')).toBe('3,189,680');
  });

  it('is exact where a binary float is not', () => {
    expect(formatAmount(Decimal.of('12345678901234567890.12'), 'EUR', 'en-GB')).toBe('12,345,678,901,234,567,890.12');
  });

  it('names the currency behind a no-break space and signs with a true minus', () => {
    expect(formatMoney(Decimal.of('-18436.8'), 'GBP', 'en-GB')).toBe('−18,436.80\u00a0GBP');
  });

  it('prints a fraction as a percentage', () => {
    expect(formatPercent(Decimal.of('0.125'), 'en-GB')).toBe('12.5\u202f%');
  });
});
