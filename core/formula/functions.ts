import { Decimal, roundTo, type RoundingMode } from '../money/decimal';
import { formatDecimal } from '../money/format';
import type { Expression } from './ast';
import { formatDayPattern } from './date';
import { addMoney } from './operators';
import { ValuesRow } from './row';
import {
  blankError, boolean, canonical, error, formatValue, money, number, percent, text, typeWords, type ListValue, type Value,
} from './value'; // prettier-ignore

/** What a function sees of the evaluation it runs in. */
export interface CallContext {
  locale: string;
  currency: string | undefined;
  rounding: RoundingMode;
  /** The next number of the document's series, padded; undefined before filing has taken one. */
  serial: number | undefined;
  evaluate(expression: Expression): Value;
  /** Evaluates an expression with an item of a list in scope. */
  evaluateFor(expression: Expression, item: Value): Value;
}

export interface Parameter {
  name: string;
  takes: 'number' | 'text' | 'condition' | 'list' | 'value' | 'any number of values' | 'formula for each item';
  optional?: boolean;
}

/** A function, declared once: checking, completion, the reference and evaluation all read this. */
export interface FormulaFunction {
  name: string;
  parameters: readonly Parameter[];
  help: string;
  example: string;
  evaluate(args: readonly Expression[], context: CallContext): Value;
}

/** Declares a function whose arguments are evaluated first; an error among them is its result. */
function eager(
  declaration: Omit<FormulaFunction, 'evaluate'>,
  compute: (args: Value[], context: CallContext) => Value,
): FormulaFunction {
  return {
    ...declaration,
    evaluate(args, context) {
      const values: Value[] = [];
      for (const argument of args) {
        const value = context.evaluate(argument);
        if (value.type === 'error') return value;
        values.push(value);
      }
      return compute(values, context);
    },
  };
}

const SUM = eager(
  {
    name: 'SUM',
    parameters: [{ name: 'values', takes: 'any number of values' }],
    help: 'Adds the values of lists. A blank among them is an error, never a zero.',
    example: 'SUM(lines[not optional].net)',
  },
  (args, context) => {
    let sum: Value | undefined;
    for (const item of flatten(args)) {
      if (item.type === 'error') return item;
      if (item.type === 'blank') return blankError(item);
      if (sum === undefined) {
        if (item.type !== 'number' && item.type !== 'percent' && item.type !== 'money')
          return error(`SUM adds numbers and money, not ${typeWords(item)}.`);
        sum = item;
        continue;
      }
      sum = addTo(sum, item);
      if (sum.type === 'error') return sum;
    }
    return sum ?? emptySum(args, context);
  },
);

function addTo(sum: Value, item: Value): Value {
  if (sum.type === 'money' && item.type === 'money') return addMoney(sum, item);
  if (sum.type === 'percent' && item.type === 'percent') return percent(sum.value.plus(item.value));
  const numeric = (value: Value) => value.type === 'number' || value.type === 'percent';
  if (numeric(sum) && numeric(item)) {
    return number((sum as { value: Decimal }).value.plus((item as { value: Decimal }).value));
  }
  return error(`${typeWords(item)} cannot be added to ${typeWords(sum)}.`);
}

function emptySum(args: Value[], { currency }: CallContext): Value {
  const held = args.find((argument): argument is ListValue => argument.type === 'list' && !!argument.holds)?.holds;
  if (!held) return number(0);
  if (!currency) return error('The document has no currency.');
  return money(new Decimal(0), currency, held);
}

const COUNT = eager(
  {
    name: 'COUNT',
    parameters: [{ name: 'values', takes: 'any number of values' }],
    help: 'How many items the lists have. Blanks are passed over.',
    example: 'COUNT(lines[optional])',
  },
  (args) => number([...flatten(args)].filter((item) => item.type !== 'blank').length),
);

const ROUND = eager(
  {
    name: 'ROUND',
    parameters: [
      { name: 'number', takes: 'number' },
      { name: 'digits', takes: 'number', optional: true },
    ],
    help: 'Rounds to a number of decimals; to a whole number if none is given. Negative digits round to tens and hundreds.',
    example: 'ROUND(12.345, 2)',
  },
  ([value, digits], context) => {
    const places = wholeNumber(digits, 0);
    if (typeof places !== 'number') return places;
    switch (value!.type) {
      case 'number':
        return number(roundTo(value.value, places, context.rounding));
      case 'percent':
        return percent(roundTo(value.value, places, context.rounding));
      case 'money':
        return { ...value, value: roundTo(value.value, places, context.rounding) };
      case 'blank':
        return blankError(value);
      default:
        return error(`ROUND rounds numbers, not ${typeWords(value!)}.`);
    }
  },
);

const IF: FormulaFunction = {
  name: 'IF',
  parameters: [
    { name: 'condition', takes: 'condition' },
    { name: 'then', takes: 'value' },
    { name: 'otherwise', takes: 'value', optional: true },
  ],
  help: 'One value when the condition holds, another when it does not. Only the chosen one is computed.',
  example: 'IF(deal.account.country = "NL", "btw", "VAT")',
  evaluate([condition, then, otherwise], context) {
    const holds = asCondition(context.evaluate(condition!));
    if (typeof holds !== 'boolean') return holds;
    if (holds) return context.evaluate(then!);
    return otherwise ? context.evaluate(otherwise) : boolean(false);
  },
};

const TEXT = eager(
  {
    name: 'TEXT',
    parameters: [
      { name: 'value', takes: 'value' },
      { name: 'pattern', takes: 'text' },
    ],
    help: 'A number or date in a Unicode (LDML) pattern: "d MMMM yyyy", "#,##0.00".',
    example: 'TEXT(document.issue_date, "yyyy")',
  },
  ([value, pattern], context) => {
    if (value!.type === 'blank') return blankError(value!);
    if (pattern!.type !== 'text') return error('The pattern of TEXT is a text in quotation marks.');
    if (value!.type === 'date') {
      try {
        return text(formatDayPattern(value!.day, pattern!.value, context.locale));
      } catch (problem) {
        return error((problem as Error).message);
      }
    }
    if (value!.type === 'number' || value!.type === 'money' || value!.type === 'percent')
      return numberByPattern(value!, pattern!.value, context);
    return error(`TEXT writes numbers and dates, not ${typeWords(value!)}.`);
  },
);

function numberByPattern(value: Extract<Value, { value: Decimal }>, pattern: string, context: CallContext): Value {
  const match = /^(#,##)?(0+)(?:\.(0*)(#*))?(%?)$/.exec(pattern);
  if (!match) return error(`“${pattern}” is not a number pattern; try "#,##0.00".`);
  const [, grouped, whole, fixed = '', open = '', sign] = match;
  const most = fixed.length + open.length;
  const scaled = roundTo(sign ? value.value.times(100) : value.value, most, context.rounding);
  const printed = formatDecimal(scaled, context.locale, fixed.length, most);
  const ungrouped = grouped ? printed : printed.replace(/(?<=\d)[\s.,\u00a0\u202f](?=\d{3}(\D|$))/g, keepDecimalSign(printed, most)); // prettier-ignore
  return text(padWhole(ungrouped, whole!.length) + sign);
}

function keepDecimalSign(printed: string, decimals: number): (match: string, _next: string, at: number) => string {
  return (match, _next, at) => (decimals > 0 && printed.length - at - 1 <= decimals ? match : '');
}

function padWhole(printed: string, digits: number): string {
  const leading = /^\d+/.exec(printed)?.[0] ?? '';
  return leading.padStart(digits, '0') + printed.slice(leading.length);
}

const GROUP: FormulaFunction = {
  name: 'GROUP',
  parameters: [
    { name: 'list', takes: 'list' },
    { name: 'key', takes: 'formula for each item' },
    { name: 'further keys', takes: 'formula for each item', optional: true },
  ],
  help: 'The items of a list by one or more keys, in order of first appearance. Each group has its keys by name and its `lines`.',
  example: 'GROUP(lines[not optional], tax_category, tax_rate)',
  evaluate([listExpression, ...keys], context) {
    const list = context.evaluate(listExpression!);
    if (list.type === 'error') return list;
    if (list.type !== 'list') return error(`GROUP groups a list, not ${typeWords(list)}.`);
    const groups = new Map<string, { keys: Value[]; items: Value[] }>();
    for (const item of list.items) {
      const values = keys.map((key) => context.evaluateFor(key, item));
      const failed = values.find((value) => value.type === 'error');
      if (failed) return failed;
      const id = JSON.stringify(values.map(canonical));
      const group = groups.get(id);
      if (group) group.items.push(item);
      else groups.set(id, { keys: values, items: [item] });
    }
    const rows = [...groups].map(([id, group]): Value => {
      const values: Record<string, Value> = { key: group.keys[0]!, lines: { ...list, items: group.items } };
      keys.forEach((key, position) => (values[keyName(key, position)] = group.keys[position]!));
      const title = group.keys.map((key) => formatValue(key, context.locale)).join(', ');
      return { type: 'record', row: new ValuesRow(`group{${id}}`, id, title, values, undefined, title) };
    });
    return { type: 'list', items: rows };
  },
};

function keyName(key: Expression, position: number): string {
  return key.kind === 'name' || key.kind === 'member' ? key.name : `key_${position + 1}`;
}

const ISBLANK = eager(
  {
    name: 'ISBLANK',
    parameters: [{ name: 'value', takes: 'value' }],
    help: 'Whether a value is absent.',
    example: 'ISBLANK(deal.order_number)',
  },
  ([value]) => boolean(value!.type === 'blank'),
);

const SERIAL = eager(
  {
    name: 'SERIAL',
    parameters: [{ name: 'digits', takes: 'number', optional: true }],
    help: 'The next number of the series, padded with zeros. Known only once filing has taken it.',
    example: '"Q-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(4)',
  },
  ([digits], { serial }) => {
    const places = wholeNumber(digits, 1);
    if (typeof places !== 'number') return places;
    if (serial === undefined) return error('The number is given on filing.');
    return text(String(serial).padStart(Math.min(places, 18), '0'));
  },
);

const DECLARED = [SUM, COUNT, ROUND, IF, TEXT, GROUP, ISBLANK, SERIAL];

/** Every function by its name in capitals. */
export const FUNCTIONS: ReadonlyMap<string, FormulaFunction> = new Map(DECLARED.map((each) => [each.name, each]));

/** Calls a function; a wrong name or number of arguments is an error value that says what to do. */
export function callFunction(name: string, args: readonly Expression[], context: CallContext): Value {
  const called = FUNCTIONS.get(name);
  if (!called) return error(`There is no function ${name}.`);
  const required = called.parameters.filter((parameter) => !parameter.optional).length;
  const open = called.parameters.some(({ takes }) => takes === 'any number of values') || name === 'GROUP';
  if (args.length < required || (!open && args.length > called.parameters.length)) {
    const names = called.parameters.map((parameter) => parameter.name).join(', ');
    return error(`${name} takes (${names}); it was given ${args.length}.`);
  }
  return called.evaluate(args, context);
}

/** A value used as a condition: true, false, or the error that it is neither. */
export function asCondition(value: Value): boolean | Value {
  if (value.type === 'boolean') return value.value;
  if (value.type === 'error') return value;
  if (value.type === 'blank') return blankError(value);
  return error(`A condition is yes or no, not ${typeWords(value)}.`);
}

function wholeNumber(value: Value | undefined, otherwise: number): number | Value {
  if (!value) return otherwise;
  if (value.type === 'blank') return blankError(value);
  if (value.type !== 'number' || !value.value.isInteger() || value.value.abs().gt(30))
    return error('The number of digits is a whole number up to 30.');
  return value.value.toNumber();
}

function* flatten(values: readonly Value[]): Generator<Value> {
  for (const value of values) {
    if (value.type === 'list') yield* flatten(value.items);
    else yield value;
  }
}
