import { Decimal, type Rounding } from '../../money/decimal';
import { mixedCurrencies, power } from '../operators';
import { NUMBER } from '../type';
import { error, money, number, type AmountValue, type NumberValue, type Value } from '../value';
import { eager, firstType, type FormulaFunction, type Parameter } from './function';

const VALUE: Parameter = { name: 'value', takes: 'amount' };
const DIGITS: Parameter = { name: 'digits', takes: 'number', optional: true };
const MULTIPLE: Parameter = { name: 'multiple', takes: 'amount' };

/** A whole number within bounds, from an argument that may be left out. */
export function wholeNumber(value: Value | undefined, otherwise: number, words: string, most = 30): number | Value {
  if (!value) return otherwise;
  const whole = value.type === 'number' && value.value.isInteger() ? value.value.toNumber() : NaN;
  if (!(Math.abs(whole) <= most)) return error(`${words} is a whole number of ${most} at most.`);
  return whole;
}

/** ROUND and its kin: to a number of decimals, in one direction (ODF 1.3 part 4, 6.17). */
function rounding(name: string, rule: Rounding, help: string, example: string): FormulaFunction {
  const declaration = {
    name,
    family: 'Rounding and arithmetic' as const,
    parameters: [VALUE, DIGITS],
    help,
    example,
    result: firstType,
  };
  return eager(declaration, ([value, digits]) => {
    const places = wholeNumber(digits, 0, 'The number of digits');
    return typeof places === 'number' ? mapped(value as AmountValue, (each) => each.round(places, rule)) : places;
  });
}

/** CEILING, FLOOR and MROUND: to a multiple, such as 0.05 or a dozen. */
function toMultiple(name: string, rule: Rounding, help: string, example: string): FormulaFunction {
  const declaration = {
    name,
    family: 'Rounding and arithmetic' as const,
    parameters: [VALUE, MULTIPLE],
    help,
    example,
    result: firstType,
  };
  return eager(declaration, ([given, multiple]) => {
    const value = given as AmountValue;
    const step = multiple as AmountValue;
    if (step.type === 'money' && value.type !== 'money')
      return error(`${name} rounds a number to a multiple of a number, not of money.`);
    if (step.type === 'money' && value.type === 'money' && step.currency !== value.currency)
      return mixedCurrencies(value.currency, step.currency);
    if (step.value.isZero() || step.value.isNegative()) return error(`${name} rounds to a multiple of more than zero.`);
    return mapped(value, (each) => each.div(step.value).round(0, rule).times(step.value));
  });
}

const ROUND = rounding(
  'ROUND',
  'half-away',
  'Rounds to a number of decimals, half away from zero; to a whole number if none is given. Negative digits round to tens and hundreds.',
  'ROUND(12.345, 2)',
);
const ROUNDUP = rounding('ROUNDUP', 'up', 'Rounds away from zero.', 'ROUNDUP(12.341, 2)');
const ROUNDDOWN = rounding('ROUNDDOWN', 'down', 'Rounds towards zero.', 'ROUNDDOWN(12.349, 2)');
const TRUNC = rounding('TRUNC', 'down', 'Cuts the decimals off, or leaves as many as are given.', 'TRUNC(-7.8)');
const CEILING = toMultiple('CEILING', 'ceiling', 'Rounds up to the next multiple.', 'CEILING(41, 12)');
const FLOOR = toMultiple('FLOOR', 'floor', 'Rounds down to a multiple.', 'FLOOR(41, 12)');
const MROUND = toMultiple(
  'MROUND',
  'half-away',
  'Rounds to the nearest multiple, half away from zero: sums paid in cash to 0.05.',
  'MROUND(17.13, 0.05)',
);

const INT = eager(
  {
    name: 'INT',
    family: 'Rounding and arithmetic',
    parameters: [VALUE],
    help: 'The whole number below: -7.2 gives -8.',
    example: 'INT(-7.2)',
    result: firstType,
  },
  ([value]) => mapped(value as AmountValue, (each) => each.round(0, 'floor')),
);

const ABS = eager(
  {
    name: 'ABS',
    family: 'Rounding and arithmetic',
    parameters: [VALUE],
    help: 'The value without its sign.',
    example: 'ABS(-12.5)',
    result: firstType,
  },
  ([value]) => mapped(value as AmountValue, (each) => each.abs()),
);

const SIGN = eager(
  {
    name: 'SIGN',
    family: 'Rounding and arithmetic',
    parameters: [VALUE],
    help: '1 for a value above zero, -1 for one below, 0 for zero.',
    example: 'SIGN(-12.5)',
    result: NUMBER,
  },
  ([value]) => number((value as AmountValue).value.sign()),
);

const MOD = eager(
  {
    name: 'MOD',
    family: 'Rounding and arithmetic',
    parameters: [VALUE, { name: 'divisor', takes: 'amount' }],
    help: 'What is left after dividing; it has the sign of the divisor.',
    example: 'MOD(-7, 3)',
    result: firstType,
  },
  ([given, by]) => {
    const [value, divisor] = [given as AmountValue, by as AmountValue];
    const quotient = wholeQuotient(value, divisor);
    if (!(quotient instanceof Decimal)) return quotient;
    return mapped(value, (each) => each.minus(quotient.times(divisor.value)));
  },
);

const QUOTIENT = eager(
  {
    name: 'QUOTIENT',
    family: 'Rounding and arithmetic',
    parameters: [VALUE, { name: 'divisor', takes: 'amount' }],
    help: 'How many whole times one value goes into another.',
    example: 'QUOTIENT(41, 12)',
    result: NUMBER,
  },
  ([given, by]) => {
    const [value, divisor] = [given as AmountValue, by as AmountValue];
    const refused = wholeQuotient(value, divisor);
    if (!(refused instanceof Decimal)) return refused;
    const size = value.value.abs().divFloor(divisor.value.abs());
    return number(value.value.sign() * divisor.value.sign() < 0 ? size.neg() : size);
  },
);

function wholeQuotient(value: AmountValue, divisor: AmountValue): Decimal | Value {
  if (divisor.value.isZero()) return error('Division by zero.');
  if (value.type === 'money' && divisor.type === 'money' && value.currency !== divisor.currency)
    return mixedCurrencies(value.currency, divisor.currency);
  if (divisor.type === 'money' && value.type !== 'money') return error('A number cannot be divided by money.');
  return value.value.divFloor(divisor.value);
}

const POWER = eager(
  {
    name: 'POWER',
    family: 'Rounding and arithmetic',
    parameters: [
      { name: 'base', takes: 'number' },
      { name: 'exponent', takes: 'number' },
    ],
    help: 'The base to the power of the exponent, as `^`.',
    example: 'POWER(1.02, 3)',
    result: NUMBER,
  },
  ([base, exponent]) => power(base!, exponent!),
);

const SQRT = eager(
  {
    name: 'SQRT',
    family: 'Rounding and arithmetic',
    parameters: [{ name: 'number', takes: 'number' }],
    help: 'The square root.',
    example: 'SQRT(6.25)',
    result: NUMBER,
  },
  ([value]) => {
    if ((value as NumberValue).value.isNegative()) return error('A number below zero has no square root.');
    return power(value!, number(Decimal.of('0.5')));
  },
);

function mapped(value: AmountValue, change: (decimal: Decimal) => Decimal): Value {
  const changed = change(value.value);
  return value.type === 'money' ? money(changed, value.currency, value.kind) : { ...value, value: changed };
}

export const ARITHMETIC = [
  ROUND,
  ROUNDUP,
  ROUNDDOWN,
  TRUNC,
  INT,
  ABS,
  SIGN,
  MOD,
  QUOTIENT,
  CEILING,
  FLOOR,
  MROUND,
  POWER,
  SQRT,
];
