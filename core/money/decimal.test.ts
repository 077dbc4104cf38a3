import DecimalLibrary from 'decimal.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { allocate } from './allocate';
import { Decimal, NumberTooGreat, type Rounding } from './decimal';

/** Another implementation of the same arithmetic, to forty significant digits. */
const Other = DecimalLibrary.clone({ precision: 40, rounding: DecimalLibrary.ROUND_HALF_UP, toExpNeg: -9e15, toExpPos: 9e15 }); // prettier-ignore

const decimalText = fc
  .tuple(fc.bigInt({ min: -(10n ** 19n), max: 10n ** 19n }), fc.integer({ min: 0, max: 14 }))
  .map(([digits, scale]) => new Other(digits.toString()).div(new Other(10).pow(scale)).toFixed());

describe('a decimal', () => {
  it.each(['0', '-0.5', '12345678901234567890.123456789', '0.00000000000000000001', '9007199254740993'])(
    'reads and writes %s',
    (source) => {
      expect(Decimal.of(source).toFixed()).toBe(source);
    },
  );

  it.each(['', '.', '1,5', '0x10', 'NaN', '1e', '--1'])('refuses %j', (source) => {
    expect(() => Decimal.of(source)).toThrow(TypeError);
  });

  it('refuses binary fractions', () => {
    expect(() => Decimal.of(0.1)).toThrow(TypeError);
  });

  it('adds, subtracts, multiplies and divides as another implementation does', () => {
    fc.assert(
      fc.property(decimalText, decimalText, (one, other) => {
        const [a, b] = [Decimal.of(one), Decimal.of(other)];
        const [x, y] = [new Other(one), new Other(other)];
        expect(a.plus(b).toFixed()).toBe(x.plus(y).toFixed());
        expect(a.minus(b).toFixed()).toBe(x.minus(y).toFixed());
        expect(a.times(b).toFixed()).toBe(x.times(y).toFixed());
        if (!y.isZero()) expect(a.div(b).toFixed()).toBe(x.div(y).toFixed());
        expect(a.comparedTo(b)).toBe(x.comparedTo(y));
      }),
    );
  });

  it('rounds as another implementation does, in every direction', () => {
    const rules: [Rounding, DecimalLibrary.Rounding][] = [
      ['half-away', 4], ['half-even', 6], ['up', 0], ['down', 1], ['ceiling', 2], ['floor', 3],
    ]; // prettier-ignore
    fc.assert(
      fc.property(decimalText, fc.integer({ min: 0, max: 12 }), fc.constantFrom(...rules), (one, digits, [rule, other]) => {
        expect(Decimal.of(one).round(digits, rule).toFixed()).toBe(new Other(one).toDecimalPlaces(digits, other).toFixed());
      }),
    ); // prettier-ignore
  });

  it('rounds a half each way: by hand', () => {
    const rounded = (source: string, digits: number, rule: Rounding) =>
      Decimal.of(source).round(digits, rule).toFixed();
    expect([rounded('2.5', 0, 'half-even'), rounded('3.5', 0, 'half-even'), rounded('-2.5', 0, 'half-away')]).toEqual(['2', '4', '-3']); // prettier-ignore
    expect([rounded('-2.1', 0, 'floor'), rounded('-2.9', 0, 'ceiling'), rounded('1250', -2, 'half-even')]).toEqual(['-3', '-2', '1200']); // prettier-ignore
  });

  it('takes whole powers exactly, and others to forty digits', () => {
    expect(Decimal.of('1.05').pow(Decimal.of(4)).toFixed()).toBe('1.21550625');
    expect(Decimal.of(2).pow(Decimal.of(-2)).toFixed()).toBe('0.25');
    expect(Decimal.of(2).pow(Decimal.of('0.5')).toFixed(30)).toBe('1.414213562373095048801688724210');
  });

  it('divides whole numbers towards minus infinity', () => {
    expect(Decimal.of(-7).divFloor(Decimal.of(3)).toFixed()).toBe('-3');
    expect(Decimal.of('7.5').divFloor(Decimal.of('2.5')).toFixed()).toBe('3');
  });

  it('refuses what has more digits than can be computed with, in no time', () => {
    expect(() => Decimal.of('1e9999').times(Decimal.of('1e9999'))).toThrow(NumberTooGreat);
    expect(Decimal.of('1e-9999').times(Decimal.of('1e-9999')).isZero()).toBe(true);
  });
});

describe('a sum split by weights', () => {
  const parts = (total: string, weights: string[], digits = 2) => allocate(Decimal.of(total), weights.map((each) => Decimal.of(each)), digits).map((part) => part.toFixed()); // prettier-ignore

  it.each([
    ['100', ['1', '1', '1'], ['33.34', '33.33', '33.33']],
    ['0.05', ['1', '1', '1'], ['0.02', '0.02', '0.01']],
    ['-100', ['1', '1', '1'], ['-33.33', '-33.33', '-33.34']],
    ['10', ['0', '1', '0'], ['0', '10', '0']],
    ['1000', ['0.3', '0.45', '0.25'], ['300', '450', '250']],
    ['10', ['3', '-1'], ['15', '-5']],
    ['0', ['0', '0'], ['0', '0']],
  ])('%s by %j is %j', (total, weights, expected) => {
    expect(parts(total, weights)).toEqual(expected);
  });

  it('refuses weights that add up to nothing', () => {
    expect(() => parts('10', ['1', '-1'])).toThrow('add up to zero');
  });

  it('adds up exactly for any weights, each part within one unit of its share', () => {
    const weight = fc.tuple(fc.integer({ min: 0, max: 1_000_000 }), fc.integer({ min: 0, max: 6 }));
    fc.assert(
      fc.property(fc.integer(), fc.integer({ min: 0, max: 3 }), fc.array(weight, { minLength: 1, maxLength: 40 }), (units, digits, raw) => {
        const weights = raw.map(([value, scale]) => Decimal.of(value).shifted(-scale));
        const sum = weights.reduce((one, other) => one.plus(other), Decimal.ZERO);
        fc.pre(!sum.isZero());
        const total = Decimal.of(units).shifted(-digits);
        const split = allocate(total, weights, digits);
        expect(split.reduce((one, other) => one.plus(other), Decimal.ZERO).toFixed()).toBe(total.toFixed());
        split.forEach((part, at) => {
          const away = part.minus(total.times(weights[at]!).div(sum)).abs();
          expect(away.comparedTo(Decimal.of(1).shifted(-digits))).toBeLessThanOrEqual(0);
        });
      }),
    ); // prettier-ignore
  });
});
