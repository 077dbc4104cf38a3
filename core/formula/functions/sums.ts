import { Decimal } from '../../money/decimal';
import { compare, mixture, multiply, plus } from '../operators';
import { NUMBER, type Type } from '../type';
import { blankError, error, money, NO_CURRENCY, number, typeWords, type ListValue, type Value } from '../value';
import { eager, flatten, itemType, type CallContext, type FormulaFunction, type Parameter } from './function';

const VALUES: Parameter = { name: 'values', takes: 'several', repeats: true };
const AMOUNTS: Parameter = { name: 'values', takes: 'amounts', repeats: true };
const ORDERED: Parameter = { name: 'values', takes: 'ordered', repeats: true };

/** The type of a sum: percentages stay percentages, money money. */
const summed = (args: readonly Type[]): Type => {
  const type = itemType(args);
  return type.is === 'number' ? NUMBER : type;
};

const SUM = eager(
  {
    name: 'SUM',
    family: 'Sums and counts',
    parameters: [AMOUNTS],
    help: 'Adds the values of lists. A blank among them is an error, never a zero.',
    example: 'SUM(lines[not optional].net)',
    result: summed,
  },
  (args, context) => total('SUM', args, context),
);

const PRODUCT = eager(
  {
    name: 'PRODUCT',
    family: 'Sums and counts',
    parameters: [AMOUNTS],
    help: 'Multiplies the values.',
    example: 'PRODUCT(1 - 10%, 1 - 5%)',
    result: NUMBER,
  },
  (args) => {
    const items = numeric('PRODUCT', args);
    return Array.isArray(items) ? items.reduce((product, item) => chained(product, item, multiply), number(1)) : items;
  },
);

const COUNT = eager(
  {
    name: 'COUNT',
    family: 'Sums and counts',
    parameters: [VALUES],
    help: 'How many records, numbers, amounts and dates there are. Blanks and texts are passed over.',
    example: 'COUNT(lines[optional])',
    result: NUMBER,
  },
  (args) => number([...flatten(args)].filter((item) => COUNTED.has(item.type)).length),
);
const COUNTED: ReadonlySet<Value['type']> = new Set(['number', 'percent', 'money', 'date', 'datetime', 'record']);

const COUNTA = eager(
  {
    name: 'COUNTA',
    family: 'Sums and counts',
    parameters: [VALUES],
    help: 'How many values there are, of whatever kind. Blanks are passed over.',
    example: 'COUNTA(lines.description)',
    result: NUMBER,
  },
  (args) => number([...flatten(args)].filter((item) => item.type !== 'blank').length),
);

const AVERAGE = eager(
  {
    name: 'AVERAGE',
    family: 'Sums and counts',
    parameters: [AMOUNTS],
    help: 'The sum of the values by their number. A blank among them is an error.',
    example: 'AVERAGE(lines.quantity)',
    result: summed,
  },
  (args, context) => {
    const items = numeric('AVERAGE', args);
    if (!Array.isArray(items)) return items;
    if (items.length === 0) return error('There is nothing to take the average of.');
    const sum = total('AVERAGE', items, context);
    return sum.type === 'error' ? sum : divided(sum, items.length);
  },
);

const MIN = extreme('MIN', 'The least of the values.', 'MIN(lines.unit_price)', -1);
const MAX = extreme('MAX', 'The greatest of the values.', 'MAX(lines.unit_price)', 1);

const MEDIAN = eager(
  {
    name: 'MEDIAN',
    family: 'Sums and counts',
    parameters: [ORDERED],
    help: 'The middle one of the values in order; with an even number, the average of the two in the middle.',
    example: 'MEDIAN(3, 1, 8)',
    result: summed,
  },
  (args) => {
    const items = itemsInOrder('MEDIAN', args);
    if (!Array.isArray(items)) return items;
    const middle = items.length / 2;
    if (items.length % 2 === 1) return items[Math.floor(middle)]!;
    const sum = plus(items[middle - 1]!, items[middle]!);
    return sum.type === 'error' ? sum : divided(sum, 2);
  },
);

function extreme(name: string, help: string, example: string, wanted: 1 | -1): FormulaFunction {
  const declaration = {
    name,
    family: 'Sums and counts' as const,
    parameters: [ORDERED],
    help,
    example,
    result: itemType,
  };
  return eager(declaration, (args) => {
    const items = itemsInOrder(name, args);
    if (!Array.isArray(items)) return items;
    return wanted === 1 ? items.at(-1)! : items[0]!;
  });
}

/** The values in order, least first; an error if there are none, or two have no order. */
function itemsInOrder(name: string, args: Value[]): Value[] | Value {
  const items: Value[] = [];
  for (const item of flatten(args)) {
    if (item.type === 'error') return item;
    if (item.type === 'blank') return blankError(item);
    if (!['number', 'percent', 'money', 'date', 'datetime'].includes(item.type))
      return error(`${name} compares numbers, money and dates, not ${typeWords(item)}.`);
    items.push(item);
  }
  if (items.length === 0) return error(`${name} has nothing to choose from.`);
  let failed = mixture(items);
  items.sort((one, other) => {
    const sign = compare(one, other);
    if (typeof sign === 'number') return sign;
    failed ??= sign;
    return 0;
  });
  return failed ?? items;
}

/** The values as numbers and money, lists opened; a blank or anything else is an error. */
function numeric(name: string, args: readonly Value[], items: Value[] = []): Value[] | Value {
  for (const item of args) {
    switch (item.type) {
      case 'number':
      case 'percent':
      case 'money':
        items.push(item);
        break;
      case 'list': {
        const opened = numeric(name, item.items, items);
        if (!Array.isArray(opened)) return opened;
        break;
      }
      case 'blank':
        return blankError(item);
      case 'error':
        return item;
      default:
        return error(`${name} takes numbers and money, not ${typeWords(item)}.`);
    }
  }
  return items;
}

/** Sums numbers and money; the sum of no amounts is an amount of zero. */
export function total(name: string, args: readonly Value[], context: CallContext): Value {
  const items = numeric(name, args);
  if (!Array.isArray(items)) return items;
  if (items.length === 0) return emptySum(args, context);
  return sumOfMoney(items) ?? items.reduce((sum, item) => chained(sum, item, plus));
}

/** The sum of money of one currency, the usual case, without a value for each step; undefined for any other. */
function sumOfMoney(items: readonly Value[]): Value | undefined {
  const first = items[0]!;
  if (first.type !== 'money') return undefined;
  let sum = Decimal.ZERO;
  let { kind } = first;
  for (const item of items) {
    if (item.type !== 'money' || item.currency !== first.currency) return undefined;
    if (item.kind === 'price') kind = 'price';
    sum = sum.plus(item.value);
  }
  return money(sum, first.currency, kind);
}

function chained(sum: Value, item: Value, apply: (sum: Value, item: Value) => Value): Value {
  return sum.type === 'error' ? sum : apply(sum, item);
}

function divided(sum: Value, by: number): Value {
  const divisor = Decimal.of(by);
  if (sum.type === 'money') return { ...sum, value: sum.value.div(divisor), kind: 'price' };
  return sum.type === 'number' || sum.type === 'percent' ? { ...sum, value: sum.value.div(divisor) } : sum;
}

function emptySum(args: readonly Value[], { currency }: CallContext): Value {
  const held = args.find((argument): argument is ListValue => argument.type === 'list' && !!argument.holds)?.holds;
  if (!held) return number(0);
  if (!currency) return error(NO_CURRENCY);
  return money(Decimal.ZERO, currency, held);
}

export const SUMS = [SUM, PRODUCT, COUNT, COUNTA, AVERAGE, MIN, MAX, MEDIAN];
