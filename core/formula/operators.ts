import { Decimal } from '../money/decimal';
import type { BinaryOperator } from './ast';
import {
  blankError, boolean, error, formatValue, money, number, percent, text, typeWords, type MoneyKind, type Value,
} from './value'; // prettier-ignore

/** Powers beyond this have more digits than any document could print. */
const GREATEST_EXPONENT = 1_000;

/**
 * Applies an operator whose two sides are both needed (`and`, `or` and `??` look at their left side first and are
 * the evaluator's). Never throws: what cannot be computed is an error value.
 */
export function applyBinary(operator: BinaryOperator, left: Value, right: Value, locale: string): Value {
  if (left.type === 'error') return left;
  if (right.type === 'error') return right;
  if (operator === '=' || operator === '<>') {
    const equal = areEqual(left, right);
    if (typeof equal !== 'boolean') return equal;
    return boolean(equal === (operator === '='));
  }
  if (operator === 'in') return isMember(left, right);
  if (left.type === 'blank') return blankError(left);
  if (right.type === 'blank') return blankError(right);

  switch (operator) {
    case '+':
    case '-':
      return add(left, right, operator);
    case '*':
      return multiply(left, right);
    case '/':
      return divide(left, right);
    case '^':
      return power(left, right);
    case '&':
      return join(left, right, locale);
    case '<':
      return ordered(left, right, (sign) => sign < 0);
    case '<=':
      return ordered(left, right, (sign) => sign <= 0);
    case '>':
      return ordered(left, right, (sign) => sign > 0);
    case '>=':
      return ordered(left, right, (sign) => sign >= 0);
    case 'and':
    case 'or':
    case '??':
      return error(`“${operator}” is not computed from both sides.`);
  }
}

/** Prefix minus. */
export function negate(value: Value): Value {
  switch (value.type) {
    case 'number':
      return number(value.value.neg());
    case 'percent':
      return percent(value.value.neg());
    case 'money':
      return { ...value, value: value.value.neg() };
    case 'blank':
      return blankError(value);
    case 'error':
      return value;
    default:
      return error(`${typeWords(value)} has no negative.`);
  }
}

/** Postfix %: a hundredth, with a percent look. */
export function asPercentage(value: Value): Value {
  if (value.type === 'number') return percent(value.value.div(100));
  if (value.type === 'blank') return blankError(value);
  return value.type === 'error' ? value : error(`% follows a number, not ${typeWords(value)}.`);
}

/** Adds a money value to a sum of the same currency; an error names both currencies otherwise. */
export function addMoney(
  sum: { value: Decimal; currency: string; kind: MoneyKind },
  next: Value & { type: 'money' },
): Value {
  if (sum.currency !== next.currency) return mixedCurrencies(sum.currency, next.currency);
  const kind = sum.kind === 'amount' && next.kind === 'amount' ? 'amount' : 'price';
  return money(sum.value.plus(next.value), sum.currency, kind);
}

function mixedCurrencies(one: string, other: string): Value {
  return error(`${one} and ${other} cannot be mixed in one sum; convert one of them first.`);
}

type Numeric = Extract<Value, { type: 'number' | 'percent' }>;
const isNumeric = (value: Value): value is Numeric => value.type === 'number' || value.type === 'percent';

function add(left: Value, right: Value, operator: '+' | '-'): Value {
  const sign = operator === '+' ? 1 : -1;
  if (isNumeric(left) && isNumeric(right)) {
    const sum = operator === '+' ? left.value.plus(right.value) : left.value.minus(right.value);
    return left.type === 'percent' && right.type === 'percent' ? percent(sum) : number(sum);
  }
  if (left.type === 'money' && right.type === 'money') {
    return addMoney(left, sign === 1 ? right : { ...right, value: right.value.neg() });
  }
  if (left.type === 'date' && right.type === 'number') return shiftDay(left.day, right.value.times(sign));
  if (operator === '+' && left.type === 'number' && right.type === 'date') return shiftDay(right.day, left.value);
  if (operator === '-' && left.type === 'date' && right.type === 'date') return number(left.day - right.day);
  const verb = operator === '+' ? 'added to' : 'taken from';
  const [one, other] = operator === '+' ? [left, right] : [right, left];
  return error(`${typeWords(one)} cannot be ${verb} ${typeWords(other)}.`);
}

function shiftDay(day: number, days: Decimal): Value {
  if (!days.isInteger()) return error('Only whole days can be added to a date.');
  const shifted = day + days.toNumber();
  if (Math.abs(shifted) > 2_900_000) return error('That date lies too far away.');
  return { type: 'date', day: shifted };
}

function multiply(left: Value, right: Value): Value {
  if (isNumeric(left) && isNumeric(right)) {
    const product = left.value.times(right.value);
    return left.type === 'percent' && right.type === 'percent' ? percent(product) : number(product);
  }
  if (left.type === 'money' && isNumeric(right)) return money(left.value.times(right.value), left.currency, 'price');
  if (isNumeric(left) && right.type === 'money') return money(right.value.times(left.value), right.currency, 'price');
  return error(`${typeWords(left)} cannot be multiplied by ${typeWords(right)}.`);
}

function divide(left: Value, right: Value): Value {
  if ((isNumeric(right) || right.type === 'money') && right.value.isZero()) return error('Division by zero.');
  if (isNumeric(left) && isNumeric(right)) {
    const quotient = left.value.div(right.value);
    return left.type === 'percent' && right.type === 'number' ? percent(quotient) : number(quotient);
  }
  if (left.type === 'money' && isNumeric(right)) return money(left.value.div(right.value), left.currency, 'price');
  if (left.type === 'money' && right.type === 'money') {
    if (left.currency !== right.currency) return mixedCurrencies(left.currency, right.currency);
    return number(left.value.div(right.value));
  }
  return error(`${typeWords(left)} cannot be divided by ${typeWords(right)}.`);
}

function power(left: Value, right: Value): Value {
  if (!isNumeric(left) || !isNumeric(right)) return error('Powers are taken of numbers.');
  if (right.value.abs().gt(GREATEST_EXPONENT)) return error(`The exponent ${right.value.toFixed()} is too great.`);
  const result = Decimal.pow(left.value, right.value);
  return result.isFinite() ? number(result) : error('This power has no value.');
}

function join(left: Value, right: Value, locale: string): Value {
  for (const side of [left, right]) {
    if (side.type === 'record' || side.type === 'list') return error(`${typeWords(side)} cannot be joined to a text.`);
  }
  return text(formatValue(left, locale) + formatValue(right, locale));
}

function areEqual(left: Value, right: Value): boolean | Value {
  if (left.type === 'blank' || right.type === 'blank') return left.type === right.type;
  const sign = compare(left, right);
  return typeof sign === 'number' ? sign === 0 : sign;
}

function ordered(left: Value, right: Value, holds: (sign: number) => boolean): Value {
  if (left.type === 'boolean' || left.type === 'record') return error(`${typeWords(left)} has no order.`);
  const sign = compare(left, right);
  return typeof sign === 'number' ? boolean(holds(sign)) : sign;
}

/** The sign of left − right, or an error where the two have nothing in common. Texts compare letter by letter. */
function compare(left: Value, right: Value): number | Value {
  if (isNumeric(left) && isNumeric(right)) return left.value.comparedTo(right.value);
  if (left.type === 'money' && right.type === 'money') {
    if (left.currency !== right.currency) return mixedCurrencies(left.currency, right.currency);
    return left.value.comparedTo(right.value);
  }
  // Zero is zero in every currency, so `discount > 0` reads as it should for money too.
  if (left.type === 'money' && right.type === 'number' && right.value.isZero()) return left.value.comparedTo(0);
  if (left.type === 'number' && right.type === 'money' && left.value.isZero()) return -right.value.comparedTo(0);
  if (left.type === 'text' && right.type === 'text')
    return left.value === right.value ? 0 : left.value < right.value ? -1 : 1;
  if (left.type === 'boolean' && right.type === 'boolean') return Number(left.value) - Number(right.value);
  if (left.type === 'date' && right.type === 'date') return left.day - right.day;
  if (left.type === 'record' && right.type === 'record') return left.row.id === right.row.id ? 0 : 1;
  return error(`${typeWords(left)} cannot be compared with ${typeWords(right)}.`);
}

function isMember(left: Value, right: Value): Value {
  if (right.type !== 'list') return error(`“in” looks in a list, not in ${typeWords(right)}.`);
  if (left.type === 'blank') return boolean(false);
  return boolean(right.items.some((item) => areEqual(left, item) === true));
}
