import DecimalLibrary from 'decimal.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { propertyRuns } from '../../tests/property-runs';
import { allocate } from './allocate';
import { Decimal, NumberTooGreat, type Rounding } from './decimal';

/** Another implementation of the same arithmetic, to forty significant digits. */
const Other = DecimalLibrary.clone({
  precision: 40,
  rounding: DecimalLibrary.ROUND_HALF_UP,
  toExpNeg: -9e15,
  toExpPos: 9e15,
});

/** A number as a fraction of whole numbers: the exact arithmetic that the results are held to. */
type Fraction = readonly [numerator: bigint, divisor: bigint];

const LARGEST_SAFE = 2n ** 53n - 1n;
const near = (border: bigint) => fc.bigInt({ min: -3n, max: 3n }).map((step) => border + step);
/** Coefficients of every size, many of them where a plain integer stops being exact and where decimals have halves. */
const coefficient = fc.oneof(
  fc.bigInt({ min: -(10n ** 19n), max: 10n ** 19n }),
  fc.bigInt({ min: -99_999n, max: 99_999n }),
  near(LARGEST_SAFE),
  near(-LARGEST_SAFE),
  near(LARGEST_SAFE / 2n),
  near(LARGEST_SAFE / 10n),
  fc.bigInt({ min: -9_999n, max: 9_999n }).map((value) => value * 10n + 5n),
  fc.integer({ min: 0, max: 40 }).map((places) => 10n ** BigInt(places)),
);
const decimal = fc.tuple(coefficient, fc.integer({ min: 0, max: 20 })).map(([digits, scale]) => ({
  ours: Decimal.of(`${digits}e-${scale}`),
  exact: [digits, 10n ** BigInt(scale)] as Fraction,
}));
/** Decimals and quotients that do not end. */
const quotient = fc
  .tuple(
    decimal,
    decimal.filter(({ exact }) => exact[0] !== 0n),
  )
  .map(([one, other]) => ({
    ours: one.ours.div(other.ours),
    exact: [one.exact[0] * other.exact[1], one.exact[1] * other.exact[0]] as Fraction,
  }));
const numeral = fc.oneof(decimal, quotient);

/** Whether a number is this fraction: exact where it ends, and by its own sum of parts where it does not. */
function expectExactly(ours: Decimal, [numerator, divisor]: Fraction): void {
  const expected = Decimal.of(numerator.toString()).div(Decimal.of(divisor.toString()));
  expect(ours.comparedTo(expected)).toBe(0);
  // The digits, found by long division alone: forty places of the fraction, cut off.
  const cut = ((numerator < 0n === divisor < 0n ? 1n : -1n) * (abs(numerator) * 10n ** 40n)) / abs(divisor);
  expect(ours.round(40, 'down').shifted(40).toFixed()).toBe(cut.toString());
}
const abs = (value: bigint) => (value < 0n ? -value : value);
/** 10,000 cases each; fewer where the tests are run for hundreds of changed sources. */
const runs = { numRuns: propertyRuns(10_000) };

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

  it('reads what is a number, and gives nothing for what is none or too long to compute with', () => {
    expect(Decimal.read('-12.50')?.toFixed()).toBe('-12.5');
    expect(Decimal.read('about ten')).toBeUndefined();
    expect(Decimal.read('1e300')).toBeUndefined();
    expect(Decimal.read(`0.${'1'.repeat(10_001)}`)).toBeUndefined();
    expect(Decimal.read(`0.${'1'.repeat(9_999)}`)?.decimalPlaces()).toBe(9_999);
  });

  it.each([
    ['.5', '0.5'],
    ['5.', '5'],
    ['+7', '7'],
    ['-0', '0'],
    ['12.5e2', '1250'],
    ['12.5E-2', '0.125'],
    ['999999999999999', '999999999999999'],
    ['-999999999999999.9', '-999999999999999.9'],
  ])('reads %s as %s', (source, written) => {
    expect(Decimal.of(source).toFixed()).toBe(written);
  });

  it('refuses binary fractions', () => {
    expect(() => Decimal.of(0.1)).toThrow(TypeError);
  });

  it.each([
    ['8.000000000000001', '5.000000000000002', '13.000000000000003'],
    ['9007199254740991', '2', '9007199254740993'],
    ['-9007199254740991', '-2', '-9007199254740993'],
    ['7.000000000000001', '5.004999999999998', '12.004999999999999'],
  ])('keeps the last unit of %s + %s', (one, other, sum) => {
    expect(Decimal.of(one).plus(Decimal.of(other)).toFixed()).toBe(sum);
    expect(Decimal.of(sum).minus(Decimal.of(other)).toFixed()).toBe(one);
  });

  it('adds, subtracts, multiplies, divides and compares exactly, quotients that do not end among them', () => {
    fc.assert(
      fc.property(numeral, numeral, ({ ours: a, exact: [an, ad] }, { ours: b, exact: [bn, bd] }) => {
        expectExactly(a.plus(b), [an * bd + bn * ad, ad * bd]);
        expectExactly(a.minus(b), [an * bd - bn * ad, ad * bd]);
        expectExactly(a.times(b), [an * bn, ad * bd]);
        if (bn !== 0n) expectExactly(a.div(b), [an * bd, ad * bn]);
        const difference = (an * bd - bn * ad) * (ad * bd);
        expect(a.comparedTo(b)).toBe(difference > 0n ? 1 : difference < 0n ? -1 : 0);
      }),
      runs,
    );
  });

  it('comes back from a division, and from any split into equal parts', () => {
    fc.assert(
      fc.property(
        numeral,
        decimal.filter(({ ours }) => !ours.isZero()),
        ({ ours: a }, { ours: b }) => {
          expect(a.div(b).times(b).toFixed()).toBe(a.toFixed());
          expect(a.div(b).times(b).decimalPlaces()).toBe(a.decimalPlaces());
        },
      ),
      runs,
    );
    expect(Decimal.of(10).div(Decimal.of(3)).times(Decimal.of(3)).round(0, 'floor').toFixed()).toBe('10');
    expect(Decimal.of('116.90').div(Decimal.of(28)).round(2).toFixed()).toBe('4.18');
  });

  it('rounds as another implementation does, in every direction', () => {
    const rules: [Rounding, DecimalLibrary.Rounding][] = [
      ['half-away', 4], ['half-even', 6], ['up', 0], ['down', 1], ['ceiling', 2], ['floor', 3],
    ]; // prettier-ignore
    const Wide = Other.clone({ precision: 120 });
    fc.assert(
      fc.property(
        numeral,
        fc.integer({ min: -3, max: 22 }),
        fc.constantFrom(...rules),
        ({ ours, exact: [n, d] }, digits, [rule, other]) => {
          const factor = new Wide(10).pow(digits);
          const expected = new Wide(n.toString()).div(d.toString()).times(factor).toDecimalPlaces(0, other).div(factor);
          expect(ours.round(digits, rule).toFixed()).toBe(expected.plus(0).toFixed());
        },
      ),
      runs,
    );
  });

  it('rounds a half each way: by hand', () => {
    const rounded = (source: string, digits: number, rule: Rounding) =>
      Decimal.of(source).round(digits, rule).toFixed();
    expect([rounded('2.5', 0, 'half-even'), rounded('3.5', 0, 'half-even'), rounded('-2.5', 0, 'half-away')]).toEqual([
      '2',
      '4',
      '-3',
    ]);
    expect([rounded('-2.1', 0, 'floor'), rounded('-2.9', 0, 'ceiling'), rounded('1250', -2, 'half-even')]).toEqual([
      '-3',
      '-2',
      '1200',
    ]);
  });

  it('writes a quotient without end to forty significant digits', () => {
    expect(Decimal.of(2).div(Decimal.of(3)).toFixed()).toBe('0.6666666666666666666666666666666666666667');
    expect(Decimal.of(2000).div(Decimal.of(3)).toFixed()).toBe('666.6666666666666666666666666666666666667');
    expect(Decimal.of(-1).div(Decimal.of(300)).toFixed()).toBe(`-0.00${'3'.repeat(40)}`);
    expect(Decimal.of(99).div(Decimal.of(7)).toFixed()).toBe('14.14285714285714285714285714285714285714');
    expect(Decimal.of(29_999).div(Decimal.of(3)).toFixed()).toBe(`9999.${'6'.repeat(35)}7`);
  });

  it('takes powers exactly where they have an exact form, and others to forty digits', () => {
    const power = (base: Decimal, exponent: Decimal) => base.pow(exponent);
    const third = Decimal.ONE.div(Decimal.of(3));
    const half = Decimal.of('0.5');
    expect(power(Decimal.of('1.05'), Decimal.of(4)).toFixed()).toBe('1.21550625');
    expect(power(Decimal.of(2), Decimal.of(-2)).toFixed()).toBe('0.25');
    expect(power(third, Decimal.of(-2)).toFixed()).toBe('9');
    expect(power(Decimal.of('6.25'), half).toFixed()).toBe('2.5');
    expect(power(third.times(third), half).equals(third)).toBe(true);
    expect(power(Decimal.of(27), third.times(Decimal.of(2))).toFixed()).toBe('9');
    expect(power(Decimal.of(2), half).toFixed()).toBe('1.41421356237309504880168872420969807857');
    expect(power(Decimal.of(2), third).toFixed()).toBe('1.25992104989487316476721060727822835057');
    expect(power(third, half).toFixed()).toBe('0.5773502691896257645091487805019574556476');
    expect(power(Decimal.of(-3), Decimal.of(3)).toFixed()).toBe('-27');
    expect(() => power(Decimal.of(-2), half)).toThrow(RangeError);
    expect(() => power(Decimal.ZERO, Decimal.of(-1))).toThrow(RangeError);
  });

  it('takes a power of many steps to forty digits where it has too many to keep', () => {
    // Computed with Python's decimal to sixty digits.
    expect(Decimal.of('1.0001').pow(Decimal.of(100_000)).round(20).toFixed()).toBe('22015.45604855219864570146');
    expect(Decimal.of(-1).pow(Decimal.of(99_999)).toFixed()).toBe('-1');
    expect(Decimal.of(-1).pow(Decimal.of(100_000)).toFixed()).toBe('1');
    expect(Decimal.of('0.1').pow(Decimal.of('4999.5')).toFixed()).toMatch(
      /^0\.0{4999}316227766016837933199889354443271853372$/,
    );
  });

  it('finds roots of squares and cubes, whole and broken', () => {
    fc.assert(
      fc.property(numeral, fc.integer({ min: 2, max: 5 }), ({ ours }, degree) => {
        const root = ours.abs();
        expect(
          root
            .pow(Decimal.of(degree))
            .pow(Decimal.ONE.div(Decimal.of(degree)))
            .equals(root),
        ).toBe(true);
      }),
    );
  });

  it('tells its sign, its size and whether it is whole', () => {
    const third = Decimal.ONE.div(Decimal.of(3));
    expect([Decimal.of(-2), Decimal.ZERO, third, third.neg()].map((each) => each.sign())).toEqual([-1, 0, 1, -1]);
    expect([third.neg().abs().equals(third), third.isInteger(), third.times(Decimal.of(3)).isInteger()]).toEqual([
      true,
      false,
      true,
    ]);
    expect([Decimal.of('2.00').isInteger(), Decimal.of('2.5').isInteger(), Decimal.of('1e3').isInteger()]).toEqual([
      true,
      false,
      true,
    ]);
    expect([Decimal.of('2.50').decimalPlaces(), Decimal.of('1e3').decimalPlaces(), third.decimalPlaces()]).toEqual([
      1,
      0,
      Infinity,
    ]);
    expect(third.toNumber()).toBe(1 / 3);
    expect(`${String(third.shifted(2))} ${JSON.stringify({ third: Decimal.of('0.10') })}`).toBe(
      `33.${'3'.repeat(38)} {"third":"0.1"}`,
    );
  });

  it('writes exactly as many decimals as are asked for', () => {
    expect(Decimal.of('1.005').toFixed(2)).toBe('1.01');
    expect(Decimal.of('-0.004').toFixed(2)).toBe('0.00');
    expect(Decimal.of(7).toFixed(3)).toBe('7.000');
    expect(Decimal.of('0.05').toFixed(0)).toBe('0');
    expect(Decimal.of(2).div(Decimal.of(3)).toFixed(2)).toBe('0.67');
  });

  it('rounds to tens and hundreds', () => {
    expect(Decimal.of('1250').round(-2).toFixed()).toBe('1300');
    expect(Decimal.of('1e3').round(-2).toFixed()).toBe('1000');
    expect(Decimal.of(10_000).div(Decimal.of(3)).round(-2).toFixed()).toBe('3300');
  });

  it('gives whole numbers in the ratio of any numbers', () => {
    const [third, half] = [Decimal.ONE.div(Decimal.of(3)), Decimal.of('0.5')];
    expect(Decimal.inRatio([third, half, Decimal.ZERO])).toEqual([2n, 3n, 0n]);
    expect(Decimal.inRatio([Decimal.of('0.25'), Decimal.of('-1e2')])).toEqual([1n, -400n]);
    expect(Decimal.inRatio([Decimal.of(2), Decimal.of(4)])).toEqual([1n, 2n]);
    expect(Decimal.inRatio([])).toEqual([]);
    expect(Decimal.inRatio([Decimal.ZERO])).toEqual([0n]);
  });

  it('divides whole numbers towards minus infinity', () => {
    expect(Decimal.of(-7).divFloor(Decimal.of(3)).toFixed()).toBe('-3');
    expect(Decimal.of('7.5').divFloor(Decimal.of('2.5')).toFixed()).toBe('3');
  });

  it.each([
    () => Decimal.of('9'.repeat(12_000)),
    () => Decimal.of(`${'9'.repeat(299)}.${'9'.repeat(9_702)}`),
    () => Decimal.of('1e-10001'),
    () => Decimal.of(10).pow(Decimal.of(400)),
    () => Decimal.of(10).pow(Decimal.of(1_000_000)),
    () => Decimal.of(10).pow(Decimal.of('10000000000000000.5')),
    () => Decimal.of('0.1').pow(Decimal.of('5000.5')),
    () => Decimal.of('1e300'),
    () => Decimal.of('9e299').plus(Decimal.of('9e299')),
    () => Decimal.of('1e200').times(Decimal.of('1e200')),
    () => Decimal.of('1e-9999').times(Decimal.of('1e-9999')),
    () => Decimal.of('1e200').div(Decimal.of('3e-200')),
  ])('refuses what is too great or has too many digits (%#)', (make) => {
    expect(make).toThrow(NumberTooGreat);
  });

  it('rounds and prints the greatest number without a fault', () => {
    const greatest = Decimal.of(`${'9'.repeat(300)}.9`);
    expect(greatest.round(0).toFixed()).toBe(`1${'0'.repeat(300)}`);
    expect(greatest.toFixed(0)).toBe(`1${'0'.repeat(300)}`);
    expect(() => greatest.round(0).plus(Decimal.ONE)).toThrow(NumberTooGreat);
  });

  it('keeps what is just within bounds', () => {
    expect(Decimal.of(`${'9'.repeat(299)}.${'9'.repeat(9_701)}`).decimalPlaces()).toBe(9_701);
    expect(Decimal.of('1e-10000').isZero()).toBe(false);
    expect(Decimal.of('1e299').toNumber()).toBe(1e299);
    expect(Decimal.of(2).pow(Decimal.of(900)).toFixed()).toBe((2n ** 900n).toString());
    expect(Decimal.of('1e-9999').plus(Decimal.ONE).minus(Decimal.ONE).isZero()).toBe(false);
  });

  it('adds up a thousand quotients without end in no time', () => {
    const parts = Array.from({ length: 1_000 }, (_, at) => Decimal.of(at + 1).div(Decimal.of(at + 2)));
    const sum = parts.reduce((one, other) => one.plus(other), Decimal.ZERO);
    const rest = parts.reduce((one, other) => one.minus(other), sum);
    expect(rest.isZero()).toBe(true);
  });
});

describe('a sum split by weights', () => {
  const parts = (total: string, weights: string[], digits = 2) =>
    allocate(
      Decimal.of(total),
      weights.map((each) => Decimal.of(each)),
      digits,
    ).map((part) => part.toFixed());

  it.each([
    ['100', ['1', '1', '1'], ['33.34', '33.33', '33.33']],
    ['0.05', ['1', '1', '1'], ['0.02', '0.02', '0.01']],
    ['-100', ['1', '1', '1'], ['-33.34', '-33.33', '-33.33']],
    ['10', ['0', '1', '0'], ['0', '10', '0']],
    ['1000', ['0.3', '0.45', '0.25'], ['300', '450', '250']],
    ['10', ['3', '-1'], ['15', '-5']],
    ['0', ['0', '0'], ['0', '0']],
  ])('%s by %j is %j', (total, weights, expected) => {
    expect(parts(total, weights)).toEqual(expected);
  });

  it('splits by weights that do not end, as by the whole numbers they are in ratio to', () => {
    const [third, sixth] = [Decimal.ONE.div(Decimal.of(3)), Decimal.ONE.div(Decimal.of(6))];
    expect(allocate(Decimal.of('0.03'), [third, sixth], 2).map(String)).toEqual(['0.02', '0.01']);
  });

  it('refuses a total that is not in whole units', () => {
    expect(() => parts('10.005', ['1', '1'])).toThrow('whole units');
    expect(() => allocate(Decimal.of(10).div(Decimal.of(3)), [Decimal.ONE], 2)).toThrow('whole units');
  });

  it('refuses weights that add up to nothing', () => {
    expect(() => parts('10', ['1', '-1'])).toThrow('add up to zero');
  });

  it('adds up exactly for any weights, each part within one unit of its share, whatever the sign', () => {
    const weight = fc.tuple(fc.integer({ min: -200_000, max: 1_000_000 }), fc.integer({ min: 0, max: 6 }));
    fc.assert(
      fc.property(
        fc.integer(),
        fc.integer({ min: 0, max: 3 }),
        fc.array(weight, { minLength: 1, maxLength: 40 }),
        (units, digits, raw) => {
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
          const mirrored = allocate(total.neg(), weights, digits);
          expect(mirrored.map((part) => part.neg().toFixed())).toEqual(split.map((part) => part.toFixed()));
        },
      ),
      runs,
    );
  });
});
