import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isCurrencyCode, minorUnit, roundMoney } from './currency';
import { Decimal, roundTo } from './decimal';
import { formatAmount, formatDecimal, formatMoney, formatPercent } from './format';
import { inDigitsOf, numberSymbols } from './number-symbols';

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
    const whole = 'BIF CLP DJF GNF ISK JPY KMF KRW PYG RWF UGX UYI VND VUV XAF XOF XPF'.split(' ');
    expect(new Set(whole.map(minorUnit))).toEqual(new Set([0]));
    expect(new Set('BHD IQD JOD KWD LYD OMR TND'.split(' ').map(minorUnit))).toEqual(new Set([3]));
    expect(new Set('CLF UYW'.split(' ').map(minorUnit))).toEqual(new Set([4]));
    expect(['EUR', 'eur', 'EURO', 'E1R', ''].map(isCurrencyCode)).toEqual([true, false, false, false, false]);
    expect(roundMoney(Decimal.of('2.5'), 'JPY', 'half-even').toFixed()).toBe('2');
    expect(roundMoney(Decimal.of('78.5'), 'JPY', 'half-away').toFixed()).toBe('79');
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

  it('prints no more decimals than twelve, and of a quotient as many', () => {
    expect(formatAmount(Decimal.of('0.1234567890123'), 'GBP', 'en-GB')).toBe('0.123456789012');
    expect(formatAmount(Decimal.of(2).div(Decimal.of(3)), 'GBP', 'en-GB')).toBe('0.666666666667');
    expect(formatDecimal(Decimal.of('1.005'), 'en-GB', 0, 2)).toBe('1.01');
    expect(formatDecimal(Decimal.of('-0.004'), 'en-GB', 2)).toBe('0.00');
    expect(formatPercent(Decimal.of('0.3333333333'), 'en-GB')).toBe('33.333333\u202f%');
  });

  it('writes numbers as each locale does', () => {
    const symbols = (locale: string) => {
      const { decimal, group, groups, leastGrouped, minus } = numberSymbols(locale);
      return [decimal, group, groups, leastGrouped, minus];
    };
    expect(symbols('en-GB')).toEqual(['.', ',', [3], 1, '−']);
    expect(symbols('es-ES')).toEqual([',', '.', [3], 2, '−']);
    expect(symbols('en-IN')).toEqual(['.', ',', [3, 2], 1, '−']);
    expect(symbols('ar-EG')[4]).toMatch(/^[\u061c\u200e\u200f]−$/);
    expect(inDigitsOf('ar-EG', 'page 105')).toBe('page ١٠٥');
    expect(inDigitsOf('en-GB', 'page 105')).toBe('page 105');
  });

  it('prints a fraction as a percentage', () => {
    expect(formatPercent(Decimal.of('0.125'), 'en-GB')).toBe('12.5\u202f%');
  });
});
