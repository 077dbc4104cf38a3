import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Decimal } from './decimal';
import { formatDecimal } from './format';
import { numberTyped, readNumber } from './read-number';

const number = (text: string) => ({ is: 'number', number: text });
const either = (...numbers: string[]) => ({ is: 'either', numbers });

describe('a typed number', () => {
  it.each([
    ['1,250.50', 'en-GB', '1250.50'],
    ['1250.5', 'en-GB', '1250.5'],
    ['.5', 'en-GB', '0.5'],
    ['-12', 'en-GB', '-12'],
    ['−12', 'en-GB', '-12'],
    ['0.4375', 'en-GB', '0.4375'],
    ['5.800', 'de-DE', '5800'],
    ['5.800,25', 'de-DE', '5800.25'],
    ['5800,25', 'de-DE', '5800.25'],
    ['12,50,000', 'hi-IN', '1250000'],
    ['1 250,5', 'fr-FR', '1250.5'],
    ['1’250.50', 'de-CH', '1250.50'],
    ["1'250.50", 'de-CH', '1250.50'],
    ['١٬٢٥٠٫٥', 'ar-EG', '1250.5'],
    ['007', 'en-GB', '7'],
  ])('%s in %s is %s', (typed, locale, read) => {
    expect(readNumber(typed, locale)).toEqual(number(read));
  });

  it.each([
    ['5.80', 'de-DE', ['5.80', '580']],
    ['0.438', 'de-DE', ['0.438', '438']],
    ['1,5', 'en-GB', ['1.5', '15']],
    ['1234,567', 'en-GB', ['1234.567', '1234567']],
    ['-1,5', 'en-GB', ['-1.5', '-15']],
  ])('%s in %s may be either of two, and is asked', (typed, locale, readings) => {
    expect(readNumber(typed, locale)).toEqual(either(...readings));
  });

  it('in the notation of another locale is read where it can mean one thing only', () => {
    expect(readNumber('1,234.50', 'de-DE')).toEqual(number('1234.50'));
    expect(readNumber('1.234.567,8', 'en-GB')).toEqual(number('1234567.8'));
  });

  it.each(['', 'x', '1x', '1.2.3', '--1', '1e5', '.', '1,,2', '1-2', '٣x'])('“%s” is none', (typed) => {
    expect(readNumber(typed, 'en-GB')).toEqual({ is: 'none' });
  });

  const locales = ['en-GB', 'de-DE', 'fr-FR', 'de-CH', 'es-ES', 'hi-IN', 'ar-EG', 'pl-PL', 'ja-JP', 'nl-NL', 'pt-PT'];
  const decimals = fc
    .tuple(fc.bigInt({ min: -(10n ** 14n), max: 10n ** 14n }), fc.integer({ min: 0, max: 4 }))
    .map(([units, places]) => Decimal.of(String(units)).shifted(-places));

  it('as it is shown is read as what it is, in any locale', () => {
    fc.assert(
      fc.property(decimals, fc.constantFrom(...locales), (value, locale) => {
        const read = readNumber(formatDecimal(value, locale, 0, 4), locale);
        expect(read.is).toBe('number');
        expect(Decimal.of((read as { number: string }).number).equals(value)).toBe(true);
      }),
    );
  });

  it('is typed as it can be read again', () => {
    fc.assert(
      fc.property(decimals, fc.constantFrom(...locales), (value, locale) => {
        const text = value.toFixed();
        expect(readNumber(numberTyped(text, locale), locale)).toEqual(number(text));
      }),
    );
  });
});
