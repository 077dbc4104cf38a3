import { NumberTooGreat, type Decimal } from '../money/decimal';
import type { BinaryOperator } from './ast';
import {
  blankError,
  boolean,
  error,
  formatValue,
  isPlainZero,
  money,
  number,
  percent,
  sentence,
  text,
  typeWords,
  type MoneyKind,
  type MoneyValue,
  type NumberValue,
  type PercentValue,
  type Value,
} from './value';

/** Texts longer than this are refused: no document prints them, and joining could double them without end. */
const LONGEST_TEXT = 100_000;
/** Days from 1970-01-01 to the ends of years 1 and 9999. */
const FIRST_DAY = -719_162;
const LAST_DAY = 2_932_896;

/**
 * Applies an operator whose two sides are both needed (`and`, `or` and `??` look at their left side first and are
 * the evaluator's). What cannot be computed is an error value.
 * @throws NumberTooGreat
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
      return comparison(left, right, (sign) => sign < 0);
    case '<=':
      return comparison(left, right, (sign) => sign <= 0);
    case '>':
      return comparison(left, right, (sign) => sign > 0);
    case '>=':
      return comparison(left, right, (sign) => sign >= 0);
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
      return error(`${sentence(typeWords(value))} has no negative.`);
  }
}

/** Postfix %: a hundredth, with a percent look. */
export function asPercentage(value: Value): Value {
  if (value.type === 'number') return percent(value.value.shifted(-2));
  if (value.type === 'blank') return blankError(value);
  return value.type === 'error' ? value : error(`% follows a number, not ${typeWords(value)}.`);
}

/** Left plus right: numbers, money of one currency, a date and days. */
export function plus(left: Value, right: Value): Value {
  return add(left, right, '+');
}

/** Left times right: of the two, one at most is money. */
export function multiply(left: Value, right: Value): Value {
  if (isNumeric(left) && isNumeric(right)) {
    const product = left.value.times(right.value);
    return left.type === 'percent' && right.type === 'percent' ? percent(product) : number(product);
  }
  if (left.type === 'money' && isNumeric(right)) return money(left.value.times(right.value), left.currency, 'price');
  if (isNumeric(left) && right.type === 'money') return money(right.value.times(left.value), right.currency, 'price');
  return error(`${sentence(typeWords(left))} cannot be multiplied by ${typeWords(right)}.`);
}

/** A text of a length that can be kept, or the error that it is too long. */
export function boundedText(value: string): Value {
  return value.length <= LONGEST_TEXT ? text(value) : error(`A text may have ${LONGEST_TEXT} characters at most.`);
}

/** A day within the years 1 to 9999, or the error that it is not. */
export function boundedDay(day: number): Value {
  return day >= FIRST_DAY && day <= LAST_DAY ? { type: 'date', day } : error('That date lies too far away.');
}

/** The error that sums of two currencies were about to be mixed. */
export function mixedCurrencies(one: string, other: string): Value {
  return error(`${one} and ${other} cannot be mixed in one sum; convert one of them first, with EXCHANGE.`);
}

/** The error that sums of more than one currency are among these values; undefined where there are not. */
export function mixture(values: readonly Value[]): Value | undefined {
  let currency: string | undefined;
  for (const value of values) {
    if (value.type !== 'money') continue;
    currency ??= value.currency;
    if (value.currency !== currency) return mixedCurrencies(currency, value.currency);
  }
  return undefined;
}

export type Numeric = NumberValue | PercentValue;
const isNumeric = (value: Value): value is Numeric => value.type === 'number' || value.type === 'percent';

function add(left: Value, right: Value, operator: '+' | '-'): Value {
  const subtracts = operator === '-';
  if (left.type === 'money' && right.type === 'money') return addMoney(left, right, subtracts);
  if (isNumeric(left) && isNumeric(right)) {
    const sum = subtracts ? left.value.minus(right.value) : left.value.plus(right.value);
    return left.type === 'percent' && right.type === 'percent' ? percent(sum) : number(sum);
  }
  // A plain zero is a zero of any currency: `unit_price * quantity - (rebate ?? 0)`.
  if (left.type === 'money' && isPlainZero(right)) return left;
  if (right.type === 'money' && isPlainZero(left)) return subtracts ? negate(right) : right;
  if (left.type === 'date' && right.type === 'number')
    return shiftDay(left.day, subtracts ? right.value.neg() : right.value);
  if (!subtracts && left.type === 'number' && right.type === 'date') return shiftDay(right.day, left.value);
  if (subtracts && left.type === 'date' && right.type === 'date') return number(left.day - right.day);
  const verb = subtracts ? 'taken from' : 'added to';
  const [one, other] = subtracts ? [right, left] : [left, right];
  return error(`${sentence(typeWords(one))} cannot be ${verb} ${typeWords(other)}.`);
}

function addMoney(left: MoneyValue, right: MoneyValue, subtracts: boolean): Value {
  if (left.currency !== right.currency) return mixedCurrencies(left.currency, right.currency);
  const kind: MoneyKind = left.kind === 'amount' && right.kind === 'amount' ? 'amount' : 'price';
  const sum = subtracts ? left.value.minus(right.value) : left.value.plus(right.value);
  return money(sum, left.currency, kind);
}

function shiftDay(day: number, days: Decimal): Value {
  if (!days.isInteger()) return error('Only whole days can be added to a date.');
  return boundedDay(day + days.toNumber());
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
  return error(`${sentence(typeWords(left))} cannot be divided by ${typeWords(right)}.`);
}

/** Left to the power of right, both plain numbers. @throws NumberTooGreat */
export function power(left: Value, right: Value): Value {
  if (!isNumeric(left) || !isNumeric(right)) return error('Powers are taken of numbers.');
  try {
    return number(left.value.pow(right.value));
  } catch (problem) {
    if (problem instanceof NumberTooGreat) throw problem;
    return error('This power has no value.');
  }
}

function join(left: Value, right: Value, locale: string): Value {
  for (const side of [left, right]) {
    if (side.type === 'record' || side.type === 'list')
      return error(`${sentence(typeWords(side))} cannot be joined to a text.`);
  }
  return boundedText(formatValue(left, locale) + formatValue(right, locale));
}

/** Whether two values are the same one; an error where they have nothing in common. */
export function areEqual(left: Value, right: Value): boolean | Value {
  if (left.type === 'blank' || right.type === 'blank') return left.type === right.type;
  const sign = compare(left, right);
  return typeof sign === 'number' ? sign === 0 : sign;
}

function comparison(left: Value, right: Value, holds: (sign: number) => boolean): Value {
  if (left.type === 'boolean' || left.type === 'record') return error(`${sentence(typeWords(left))} has no order.`);
  const sign = compare(left, right);
  return typeof sign === 'number' ? boolean(holds(sign)) : sign;
}

/** The sign of left − right, or an error where the two have nothing in common. Texts compare letter by letter. */
export function compare(left: Value, right: Value): number | Value {
  if (isNumeric(left) && isNumeric(right)) return left.value.comparedTo(right.value);
  if (left.type === 'money' && right.type === 'money') {
    if (left.currency !== right.currency) return mixedCurrencies(left.currency, right.currency);
    return left.value.comparedTo(right.value);
  }
  // A plain number beside money counts in the money's own currency: `deal.amount > 50000`, `discount > 0`.
  if (left.type === 'money' && right.type === 'number') return left.value.comparedTo(right.value);
  if (left.type === 'number' && right.type === 'money') return left.value.comparedTo(right.value);
  if (left.type === 'text' && right.type === 'text')
    return left.value === right.value ? 0 : left.value < right.value ? -1 : 1;
  if (left.type === 'boolean' && right.type === 'boolean') return Number(left.value) - Number(right.value);
  if (left.type === 'date' && right.type === 'date') return left.day - right.day;
  if (left.type === 'datetime' && right.type === 'datetime') return left.at - right.at;
  if (left.type === 'record' && right.type === 'record') return left.row.id === right.row.id ? 0 : 1;
  return error(`${sentence(typeWords(left))} cannot be compared with ${typeWords(right)}.`);
}

function isMember(left: Value, right: Value): Value {
  if (right.type !== 'list') return error(`“in” looks in a list, not in ${typeWords(right)}.`);
  if (left.type === 'blank') return boolean(false);
  if (left.type === 'record')
    return boolean(right.items.some((item) => item.type === 'record' && item.row === left.row));
  return boolean(right.items.some((item) => areEqual(left, item) === true));
}
