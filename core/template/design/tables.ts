import { firstFree } from '../../shape/first-free';
import { writeCondition } from '../../condition/condition';
import { readItems } from '../../condition/read';
import { fieldOf, LINES, recordTypeOf, type RecordSchema } from '../../record/schema';
import type { Shape, Type } from '../../formula/type';
import { sentence } from '../../formula/value';
import { Checker } from '../../sheet/check';
import type { DerivedList, Figure, FigureSheet } from '../../sheet/figure';
import type { ColumnDefinition, LineTable, LineTableBlock } from '../blocks/line-table';
import { checkContext } from '../check';
import { usesIn } from '../where-used';
import { lineColumns } from '../line-columns';
import type { Template } from '../template';
import type { OptionalWay } from './optional-ways';
import { ReadyMade } from './ready-made';

type Holder = Pick<Template, 'sheet' | 'record'>;

/** A table with the figures that it needs. */
export interface Designed {
  sheet: FigureSheet;
  block: LineTableBlock;
}

const MOST_COLUMNS = 6;

/** A table of a list, with the columns that suit its items; of the record's lines with their net, which adds up to the subtotal. */
export function tableOf(holder: Holder, schema: RecordSchema, list: string, newId: () => string): Designed {
  if (list === LINES) return linesTable(holder, schema, newId);
  const checker = new Checker(checkContext(holder, schema));
  const { type } = checker.formula(list);
  const label = checker.outerNames().find(({ name }) => name === list)?.label ?? lastName(list);
  const item = checker.itemOf(list);
  const columns = item ? columnsOfItems(checker, item) : [];
  return {
    sheet: holder.sheet,
    block: tableBlock(newId, {
      label,
      list: type.is === 'list' ? list : LINES,
      columns: columns.length > 0 ? columns.map(withTotal) : [counterColumn()],
    }),
  };

  /** What the sheet declares a column to add up to. */
  function withTotal(column: ColumnDefinition): ColumnDefinition {
    const sum = holder.sheet.sums.find((each) => each.column === `${list}.${column.formula}`);
    return sum ? { ...column, total: sum.figure } : column;
  }
}

const lastName = (list: string): string => list.split('.').at(-1)!.replaceAll('_', ' ');

function linesTable({ sheet, record }: Holder, schema: RecordSchema, newId: () => string): Designed {
  const type = fieldOf(schema, record.type, LINES)?.target;
  const ready = new ReadyMade(record, schema);
  const net = ready.find(sheet, ({ list, figure }) => list === LINES && figure?.meaning === 'line-net');
  const subtotal = net && ready.find(net.sheet, ({ figure }) => figure?.meaning === 'sum-of-lines');
  const priced = subtotal ?? net;
  const sum = priced?.sheet.sums.find(({ figure }) => figure === subtotal?.key)?.column;
  const name = net?.key.split('.')[1];
  const isSummed = sum !== undefined && name !== undefined && sum.endsWith(`.${name}`);
  const over = isSummed ? sum.slice(0, -name.length - 1) : LINES;
  const taxed = net ? taxFields() : [];
  const columns = lineColumns(schema, type, net !== undefined)
    .filter(({ id }) => !taxed.includes(id))
    .map(withDetail)
    .map(whereAny);
  return {
    sheet: priced?.sheet ?? sheet,
    block: tableBlock(newId, {
      label: 'Lines',
      list: over,
      columns: net ? [...columns, netColumn(name!, net.label, isSummed ? subtotal?.key : undefined)] : columns,
    }),
  };

  /** How a line is taxed is told below the table, by category. */
  function taxFields(): string[] {
    const rate = ready.find(sheet, ({ list, figure }) => list === LINES && figure?.meaning === 'tax-rate');
    const formula = rate?.sheet.perLine.find(({ meaning }) => meaning === 'tax-rate')?.formula;
    if (!rate || formula === undefined) return [];
    const checker = new Checker(checkContext({ sheet: rate.sheet, record }, schema));
    return checker.formula(formula, checker.lines).reads.flatMap((path) => path.at(-1) ?? []);
  }

  /** A percentage that lines may lack has a column where a line has it. */
  function whereAny(column: ColumnDefinition): ColumnDefinition {
    const field = fieldOf(schema, type, column.id);
    if (field?.type !== 'percent' || !field.nullable) return column;
    return { ...column, when: `COUNT(${over}[${column.formula} ?? 0% <> 0%]) > 0` };
  }

  /** What the item is described by stands under its name. */
  function withDetail(column: ColumnDefinition): ColumnDefinition {
    const described = Object.values(recordTypeOf(schema, type)?.fields ?? {}).find(
      ({ name: field, type: kind }) => kind === 'text' && /descri/i.test(field),
    );
    return column.id === 'item' && described ? { ...column, detail: described.name } : column;
  }
}

const netColumn = (name: string, label: string, total: string | undefined): ColumnDefinition => ({
  id: 'line-net',
  heading: label,
  formula: name,
  format: 'plain',
  ...(total !== undefined && { total }),
  align: 'end',
  width: 'content',
});

const counterColumn = (): ColumnDefinition => ({
  id: 'position',
  heading: '',
  formula: '',
  counter: true,
  align: 'start',
  width: 'content',
});

const tableBlock = (newId: () => string, attrs: Omit<LineTable, 'id'>): LineTableBlock => ({
  type: 'lineTable',
  attrs: { id: newId(), ...attrs },
});

/** Columns of what the rows of a list have: the first text takes the room that the others leave. */
function columnsOfItems(checker: Checker, item: Shape): ColumnDefinition[] {
  const plain = checker.namesIn(item).filter(({ type, figure }) => isPlain(type) && !figure?.internal);
  const figures = plain.filter(({ figure }) => figure !== undefined);
  // Groups have their keys among their figures; instalments have values of their own.
  const isGroup = item.type(LINES) !== undefined;
  const shown = (isGroup && figures.length > 0 ? figures : plain).slice(-MOST_COLUMNS);
  const first = shown.findIndex(({ type }) => type.is === 'text');
  return shown.map(({ name, label, type }, at) => ({
    ...columnFor(name, sentence(label), type),
    ...(at === Math.max(0, first) && { width: 'rest' as const }),
  }));
}

const isPlain = ({ is }: Type): boolean => !['record', 'list', 'image', 'rich', 'unknown'].includes(is);

/** A column for what a formula of a type gives. */
export function columnFor(formula: string, label: string, type: Type): ColumnDefinition {
  const isNumber = ['number', 'percent', 'money'].includes(type.is);
  if (type.is === 'image')
    return {
      id: formula,
      heading: '',
      formula,
      picture: { width: 34, height: 26 },
      align: 'start',
      width: 'content',
      mayBeBlank: true,
    };
  return {
    id: formula,
    heading: label,
    formula,
    align: isNumber ? 'end' : 'start',
    width: 'content',
    ...(type.is === 'money' && { format: 'plain' as const }),
    mayBeBlank: true,
  };
}

/** The formula of the field that a table is grouped by; undefined where it is not, or by something else. */
export function groupedBy(
  { sheet }: Pick<Template, 'sheet'>,
  { groups }: Pick<LineTable, 'groups'>,
): string | undefined {
  const list = sheet.lists.find(({ name }) => name === groups?.list);
  return list && /^GROUP\(.*,\s*([^,()]+)\)$/.exec(list.formula)?.[1];
}

/** What a table is grouped by stands under this name in the rows of its groups. */
const GROUP_NAME = 'group_name';
const GROUP_NET = 'group_net';

/** A table grouped by a field of its items, by a list that is made for it; undefined takes the groups away. */
export function withGroups(
  template: Template,
  schema: RecordSchema,
  table: LineTable,
  by: { formula: string; label: string } | undefined,
): { sheet: FigureSheet; groups: LineTable['groups'] } {
  const sheet = withoutGroups(template, schema, table);
  if (!by) return { sheet, groups: undefined };
  const summed = summedColumn(table);
  const name = freeName(`by_${by.formula.split('.').at(-1)!}`, sheet);
  const amount = (figure: string, label: string, formula: string): Figure => ({
    name: figure,
    label,
    formula,
    type: 'amount',
  });
  const list: DerivedList = {
    name,
    label: `By ${by.label.toLowerCase()}`,
    formula: `GROUP(${table.filter === undefined ? table.list : `${table.list}[${table.filter}]`}, ${by.formula})`,
    columns: [
      { name: GROUP_NAME, label: by.label, formula: groupName(by, template, schema, table.list), type: 'text' },
      ...(summed ? [amount(GROUP_NET, 'Net of the group', `SUM(item.lines.${summed})`)] : []),
    ],
  };
  return {
    sheet: { ...sheet, lists: [...sheet.lists, list] },
    groups: {
      list: name,
      items: 'item.lines',
      heading: `=[${GROUP_NAME}]`,
      ...(summed && { subtotal: { label: `=[${GROUP_NAME}]`, formula: GROUP_NET } }),
    },
  };
}

/** What a group is called: by the text that its items share, or by whether its field holds. */
function groupName(
  { formula, label }: { formula: string; label: string },
  template: Holder,
  schema: RecordSchema,
  list: string,
): string {
  const checker = new Checker(checkContext(template, schema));
  const isYesNo = checker.formula(formula, checker.itemOf(list)).type.is === 'boolean';
  return isYesNo ? `IF(${formula}, "${label.replaceAll('"', '""')}", "Other")` : `${formula} ?? "Other"`;
}

/** The figure of the items that a table sums: that of the column with a total. */
function summedColumn({ columns }: LineTable): string | undefined {
  const { formula } =
    columns.find(({ total }) => total !== undefined) ?? columns.findLast(({ id }) => id === 'line-net') ?? {};
  return formula !== undefined && /^\w+$/.test(formula) ? formula : undefined;
}

/** A sheet without the list of a table’s groups, where nothing else uses it. */
function withoutGroups(template: Template, schema: RecordSchema, { id, groups }: LineTable): FigureSheet {
  const { sheet } = template;
  if (!groups || !sheet.lists.some(({ name }) => name === groups.list)) return sheet;
  const ofList = (key: string) => key === groups.list || key.startsWith(`${groups.list}.`);
  const { figures } = usesIn(template, new Checker(checkContext(template, schema)));
  const uses = Object.entries(figures).flatMap(([key, places]) => (ofList(key) ? places : []));
  const isUsed = uses.some(({ block, figure }) => block !== id && !(figure !== undefined && ofList(figure)));
  return isUsed ? sheet : { ...sheet, lists: sheet.lists.filter(({ name }) => name !== groups.list) };
}

function freeName(stem: string, { lists, document }: FigureSheet): string {
  const taken = [...lists, ...document].map(({ name }) => name);
  return firstFree((count) => (count === 1 ? stem : `${stem}_${count}`), taken);
}

const MARK = (field: string) => ` & IF(${field}, " (optional)", "")`;

/** What a table does with items of which a yes-or-no field holds. */
export function optionalWay({ list, columns }: LineTable, field: string): OptionalWay {
  const where = readItems(list)?.where;
  const isLeftOut =
    where?.joins === 'all' && where.rules.some((each) => each.subject === field && each.comparison === 'holdsNot');
  if (isLeftOut) return 'left out';
  return columns.some(({ formula }) => formula.endsWith(MARK(field))) ? 'marked' : 'printed';
}

/** A table that does something else with items that are optional; and the one behind it that they get, where they do. */
export function withOptional(
  table: LineTable,
  field: string,
  way: OptionalWay,
  newId: () => string,
): { table: LineTable; behind?: LineTableBlock } {
  const plain = withoutWay(table, field);
  if (way === 'printed') return { table: plain };
  if (way === 'marked') {
    const named =
      plain.columns.find(({ width, counter }) => width === 'rest' && !counter) ??
      plain.columns.find(({ counter }) => !counter);
    const columns = plain.columns.map((each) =>
      each === named ? { ...each, formula: `${each.formula}${MARK(field)}` } : each,
    );
    return { table: { ...plain, columns } };
  }
  const without = {
    ...plain,
    list: filtered(plain.list, field, 'holdsNot'),
    columns: table.columns.map((each, at) => ({
      ...plain.columns[at]!,
      ...(each.total !== undefined && { total: each.total }),
    })),
  };
  if (way === 'left out') return { table: without };
  const { groups: _, carry: __, ...rest } = plain;
  const columns = rest.columns.map(({ total: ___, ...each }) => each);
  const own = { ...rest, id: newId(), label: 'Optional', list: filtered(plain.list, field, 'holds'), columns };
  return { table: without, behind: { type: 'lineTable', attrs: own } };
}

/** A table that prints optional items as the others: what it adds up to does not count them. */
function withoutWay(table: LineTable, field: string): LineTable {
  const columns = table.columns.map(({ total: _, ...each }) => ({
    ...each,
    formula: each.formula.endsWith(MARK(field)) ? each.formula.slice(0, -MARK(field).length) : each.formula,
  }));
  return { ...table, list: filtered(table.list, field, undefined), columns };
}

/** A list with only those items of which a yes-or-no field holds, or does not; or with both. */
function filtered(list: string, field: string, comparison: 'holds' | 'holdsNot' | undefined): string {
  const rule = readItems(list);
  if (!rule) return list;
  const others = (rule.where?.joins === 'all' ? rule.where.rules : []).filter((each) => each.subject !== field);
  const rules = [...(comparison ? [{ subject: field, comparison, values: [] }] : []), ...others];
  return rules.length === 0 ? rule.subject : `${rule.subject}[${writeCondition({ joins: 'all', rules })}]`;
}
