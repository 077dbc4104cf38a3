import { itemPath } from '../../record/value-path';
import { LINES } from '../../record/schema';
import type { Expression } from '../ast';
import { areEqual, compare, mixture } from '../operators';
import { printFormula } from '../print';
import { ValuesRow, type Row } from '../row';
import { listOf, NUMBER, shapeOf, UNKNOWN, type Type } from '../type';
import { asCondition } from './condition';
import { wholeNumber } from './arithmetic';
import { blankError, canonical, error, formatValue, number, typeWords, type ListValue, type Value } from '../value';
import { ownOf } from './own-item';
import { eager, firstType, itemType, lazy, type Argument, type FormulaFunction, type Parameter } from './function';

const LIST: Parameter = { name: 'list', takes: 'list' };

const GROUP = lazy(
  {
    name: 'GROUP',
    family: 'Lists',
    parameters: [
      { name: 'list', takes: 'records' },
      { name: 'key', takes: 'formula for each item', repeats: true },
    ],
    help: 'The items of a list by one or more keys, in order of first appearance. Each group has its keys by name and its `lines`; of two keys of the same name, the second is called `name_2`.',
    example: 'GROUP(lines[not optional], tax_category, tax_rate)',
    result: ([list, ...keys], [, ...expressions]) => {
      const names = keyNames(expressions).map((name, position) => [name, keys[position] ?? UNKNOWN] as const);
      const types: Record<string, Type> = { key: keys[0] ?? UNKNOWN, [LINES]: list ?? UNKNOWN };
      return listOf({ is: 'record', shape: shapeOf('group', { ...types, ...Object.fromEntries(names) }) });
    },
  },
  ([listArgument, ...keys], context) => {
    const list = listArgument!.value();
    if (list.type !== 'list') return refuseList('GROUP', list);
    const groups = new Map<string, { keys: Value[]; items: Value[] }>();
    for (const item of list.items) {
      if (item.type !== 'record') return error(`GROUP groups records, not ${typeWords(item)}s.`);
      const values = keys.map((key) => key.valueFor(item.row));
      const failed = values.find((value) => value.type === 'error');
      if (failed) return failed;
      const id = JSON.stringify(values.map(canonical));
      const group = groups.get(id);
      if (group) group.items.push(item);
      else groups.set(id, { keys: values, items: [item] });
    }
    const names = keyNames(keys.map(({ expression }) => expression));
    const shape = ['key', LINES, ...names].join();
    const rows = [...groups].map(([id, group]): Value => {
      const values: Record<string, Value> = {
        key: group.keys[0]!,
        [LINES]: { ...list, items: group.items },
        ...Object.fromEntries(names.map((name, position) => [name, group.keys[position]!])),
      };
      const title = group.keys.map((key) => formatValue(key, context.locale)).join(', ');
      return { type: 'record', row: new ValuesRow(itemPath('group', id), id, title, values, undefined, title, shape) };
    });
    return { type: 'list', items: rows };
  },
);

/** The names that the keys of a group have: their own, each once, and none that a group has for something else. */
function keyNames(keys: readonly Expression[]): string[] {
  const taken = new Set([LINES]);
  return keys.map((key, position) => {
    const wanted = key.kind === 'name' || key.kind === 'member' ? key.name : `key_${position + 1}`;
    if (position > 0) taken.add('key');
    let name = wanted;
    for (let count = 2; taken.has(name); count++) name = `${wanted}_${count}`;
    taken.add(name);
    return name;
  });
}

const SORT = lazy(
  {
    name: 'SORT',
    family: 'Lists',
    parameters: [
      LIST,
      { name: 'key', takes: 'formula for each item', optional: true },
      { name: 'descending', takes: 'condition', optional: true },
    ],
    help: 'A list in order of a key, least first unless `descending` is true. Equal items keep their order; items without a key come last.',
    example: 'SORT(lines, unit_price, true).name',
    result: firstType,
  },
  ([listArgument, key, descendingArgument], { locale }) => {
    const list = listArgument!.value();
    if (list.type !== 'list') return refuseList('SORT', list);
    const descending = descendingArgument ? asCondition(descendingArgument.value()) : false;
    if (typeof descending !== 'boolean') return descending;
    let failed: Value | undefined;
    const keyed = list.items.map((item) => {
      const value = key && item.type === 'record' ? key.valueFor(item.row) : item;
      if (value.type === 'error') failed ??= value;
      return { item, value };
    });
    failed ??= mixture(keyed.map(({ value }) => value));
    const collator = new Intl.Collator(locale);
    keyed.sort(({ value: one }, { value: other }) => {
      if (one.type === 'blank' || other.type === 'blank')
        return Number(one.type === 'blank') - Number(other.type === 'blank');
      const sign =
        one.type === 'text' && other.type === 'text' ? collator.compare(one.value, other.value) : orderOf(one, other);
      if (typeof sign === 'number') return descending ? -sign : sign;
      failed ??= sign;
      return 0;
    });
    return failed ?? { ...list, items: keyed.map(({ item }) => item) };
  },
);

function orderOf(one: Value, other: Value): number | Value {
  return one.type === 'record' ? error('SORT needs a key to order records by.') : compare(one, other);
}

const UNIQUE = eager(
  {
    name: 'UNIQUE',
    family: 'Lists',
    parameters: [LIST],
    help: 'Each different value of a list once, in order of first appearance.',
    example: 'UNIQUE(lines.unit)',
    result: firstType,
  },
  ([list]) => {
    const seen = new Set<string>();
    const items = (list as ListValue).items.filter((item) => {
      const id = `${item.type} ${canonical(item)}`;
      return !seen.has(id) && seen.add(id);
    });
    return { ...(list as ListValue), items };
  },
);

const FIRST = end(
  'FIRST',
  'The first item of a list; blanks are passed over.',
  'FIRST(lines).name',
  (items) => items[0],
);
const LAST = end('LAST', 'The last item of a list; blanks are passed over.', 'LAST(lines).name', (items) =>
  items.at(-1),
);

function end(
  name: string,
  help: string,
  example: string,
  choose: (items: Value[]) => Value | undefined,
): FormulaFunction {
  const declaration = { name, family: 'Lists' as const, parameters: [LIST], help, example, result: itemType };
  return eager(declaration, ([list]) => {
    const items = (list as ListValue).items.filter(({ type }) => type !== 'blank');
    return choose(items) ?? { type: 'blank', cause: 'the list is empty' };
  });
}

const INDEX = eager(
  {
    name: 'INDEX',
    family: 'Lists',
    parameters: [LIST, { name: 'position', takes: 'number' }],
    help: 'The item at a position of a list, counted from 1.',
    example: 'INDEX(lines.name, 2)',
    result: itemType,
  },
  ([list, position]) => {
    const at = wholeNumber(position, 1, 'The position', 1_000_000);
    if (typeof at !== 'number') return at;
    const { items } = list as ListValue;
    return items[at - 1] ?? error(`The list has ${items.length} items and no position ${at}.`);
  },
);

const SOUGHT: Parameter = { name: 'sought', takes: 'value' };

const MATCH = eager(
  {
    name: 'MATCH',
    family: 'Lists',
    parameters: [SOUGHT, LIST, { name: 'kind', takes: 'number', optional: true }],
    help: 'At which position a value stands in a list. Kind 0 finds an equal one; kind 1, taken if none is given, the last that is not greater in a list in rising order; kind -1 the last that is not less in a falling one.',
    example: 'MATCH("pc", lines.unit, 0)',
    result: NUMBER,
  },
  ([sought, list, kind]) => {
    const type = wholeNumber(kind, 1, 'The kind', 1);
    if (typeof type !== 'number') return type;
    const { items } = list as ListValue;
    const at = type === 0 ? equalPosition(sought!, items) : lastWithin(sought!, items, type as 1 | -1);
    return typeof at === 'number' ? number(at + 1) : at;
  },
);

const LOOKUP = eager(
  {
    name: 'LOOKUP',
    family: 'Lists',
    parameters: [SOUGHT, LIST, { name: 'results', takes: 'list' }],
    help: 'Finds the last item that is not greater than a value in a list in rising order, and gives the item at the same position of another list: freight by weight, rates by date.',
    example: 'LOOKUP(120, tables.freight.from, tables.freight.price)',
    result: ([, , results]) => itemType(results ? [results] : []),
  },
  ([sought, list, results]) => {
    const at = lastWithin(sought!, (list as ListValue).items, 1);
    if (typeof at !== 'number') return at;
    const { items } = results as ListValue;
    return items[at] ?? error(`The results of LOOKUP have ${items.length} items and none at position ${at + 1}.`);
  },
);

function equalPosition(sought: Value, items: readonly Value[]): number | Value {
  for (const [at, item] of items.entries()) {
    if (item.type === 'error') return item;
    if (areEqual(sought, item) === true) return at;
  }
  return notFound(sought);
}

/** The last position of an ordered list that is not beyond a value. A list out of order is an error, not a guess. */
export function lastWithin(sought: Value, items: readonly Value[], direction: 1 | -1): number | Value {
  const mixed = mixture([sought, ...items]);
  if (mixed) return mixed;
  let found = -1;
  for (const [at, item] of items.entries()) {
    if (item.type === 'error') return item;
    if (item.type === 'blank') return blankError(item);
    const order = at === 0 ? 0 : compare(items[at - 1]!, item);
    if (typeof order !== 'number') return order;
    if (order * direction > 0)
      return error(
        `The list is not in ${direction === 1 ? 'rising' : 'falling'} order: “${formatValue(item, 'en')}” comes after “${formatValue(items[at - 1]!, 'en')}”.`,
      );
    const sign = compare(item, sought);
    if (typeof sign !== 'number') return sign;
    if (sign * direction <= 0) found = at;
  }
  return found === -1 ? notFound(sought) : found;
}

const notFound = (sought: Value) => error(`“${formatValue(sought, 'en')}” is not in the list.`);

function refuseList(name: string, value: Value): Value {
  if (value.type === 'error') return value;
  return value.type === 'blank' ? blankError(value) : error(`${name} takes a list, not ${typeWords(value)}.`);
}

const BUNDLEHEAD = lazy(
  {
    name: 'BUNDLEHEAD',
    family: 'Lists',
    parameters: [
      { name: 'list', takes: 'records' },
      { name: 'key', takes: 'formula for each item' },
      { name: 'part of', takes: 'formula for each item' },
      { name: 'condition', takes: 'formula for each item', optional: true },
    ],
    help: 'In a figure of a line: the line that it belongs to, the topmost of those it is a part of, directly or by way of other parts; with a condition, the topmost for which it holds. Blank for a line that is a part of none. Of two lines with one key, the first counts.',
    example: 'BUNDLEHEAD(lines, name, unit).name',
    ofItem: true,
    result: itemType,
  },
  ([list, key, partOf, condition], context) => {
    const formulas = [key, partOf, condition].map((each) => (each ? printFormula(each.expression) : ''));
    const asked = { key: formulas.join('; '), absent: 'no line it is a part of' };
    return ownOf('BUNDLEHEAD', list!, context, asked, (items, inner) => {
      const [keys, owners, conditions] = [key, partOf, condition].map(
        (each) => each && inner.argument(each.expression),
      );
      return headsOf(items, keys!, owners!, conditions);
    });
  },
);

/** For each record of a list, the topmost one that it belongs to; blank where there is none. */
function headsOf(items: readonly Value[], key: Argument, partOf: Argument, condition: Argument | undefined): Value {
  const rows = items.flatMap((item) => (item.type === 'record' ? [item.row] : []));
  const byKey = new Map<string, Row>();
  for (const row of rows) {
    const id = canonical(key.valueFor(row));
    if (id !== '' && !byKey.has(id)) byKey.set(id, row);
  }
  const ownerOf = new Map<Row, Row>();
  for (const row of rows) {
    const owner = byKey.get(canonical(partOf.valueFor(row)));
    if (owner) ownerOf.set(row, owner);
  }
  const heads: Value[] = [];
  for (const row of rows) {
    let head: Row | undefined;
    const seen = new Set([row]);
    for (let above = ownerOf.get(row); above; above = ownerOf.get(above)) {
      if (seen.has(above)) return error(`${above.place ?? above.title} is a part of itself, by way of its parts.`);
      seen.add(above);
      const holds = condition ? asCondition(condition.valueFor(above)) : true;
      if (typeof holds !== 'boolean') return holds;
      if (holds) head = above;
    }
    heads.push(
      head ? { type: 'record', row: head } : { type: 'blank', cause: 'no line it is a part of', place: row.place },
    );
  }
  return { type: 'list', items: heads };
}

export const LISTS = [BUNDLEHEAD, GROUP, SORT, UNIQUE, FIRST, LAST, INDEX, MATCH, LOOKUP];
