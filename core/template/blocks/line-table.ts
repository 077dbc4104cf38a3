import type { Row } from '../../formula/row';
import { formatValue, isAmount, textIn } from '../../formula/value';
import { COLUMN_FORMATS } from '../../formula/value-format';
import { inDigitsOf } from '../../money/number-symbols';
import {
  boolean,
  either,
  formula,
  id,
  label,
  listOf,
  number,
  oneOf,
  placeholders,
  points,
  shape,
  text,
  type InferType,
} from '../../shape/shape';
import { PrintedSum } from '../../sheet/printed-sum';
import { phrase } from '../../words/phrases';
import type { FormulaChanges, WordsChanges } from '../changes';
import type { Composer } from '../composer';
import { textOfRuns, type PlacedPicture, type Run } from '../composed';
import { attrs, leaf } from '../node';
import { twice, unchanged, type BlockKind } from './kind';
import type { ComposedParagraph } from './paragraph';

/** Looks of a table: hairlines between its rows; bands of a quiet tint; or close rows in small type. */
export const TABLE_STYLES = ['rules', 'bands', 'dense'] as const;
export type TableStyle = (typeof TABLE_STYLES)[number];

const column = shape({
  id: id(),
  heading: placeholders(),
  /** Evaluated for each item; a `counter` column numbers the rows instead. */
  formula: formula().defined(),
  counter: boolean(),
  /** The formula gives a picture, printed no wider and no higher than this, in points. */
  picture: shape({ width: points().required(), height: points().required() }),
  /** A quieter second line under the value; nothing where it is blank. */
  detail: formula(),
  format: oneOf(COLUMN_FORMATS),
  align: oneOf(['start', 'end']).required(),
  /** As wide as its content asks, all the rest, or a fraction of the table's width. */
  width: either(
    (value) => typeof value === 'number',
    number().min(0.01).max(1).required(),
    oneOf(['content', 'rest']).required(),
  ),
  mayBeBlank: boolean(),
  /** Printed only when this formula over the whole document holds. */
  when: formula(),
  /** Formula over the whole document of what the printed rows of this column add up to: `subtotal`. Proved each time. */
  total: formula(),
}).required();
export type ColumnDefinition = InferType<typeof column>;

/** How a line table is grouped: by the rows of a list that have items of their own, as GROUP makes them. */
const groups = shape({
  /** Formula of the groups: a derived list's name. */
  list: formula().required(),
  /** Formula of a group's items, with the group in scope: `item.lines`. */
  items: formula().required(),
  /** The group is in scope. */
  heading: placeholders(),
  subtotal: shape({ label: placeholders(), formula: formula().required() }),
});
type TableGroups = NonNullable<InferType<typeof groups>>;

/** How items that are parts of another one print: formulas, each for an item. */
const bundles = shape({
  /** What the whole is known by: `sku`. */
  key: formula().required(),
  /** The key of the whole that an item is a part of; blank for an item of its own: `part_of`. */
  partOf: formula().required(),
  /** For the whole: "indented" parts under it, "rolled up" into its second line, or "hidden". */
  show: formula().required(),
  /** For a part: what names it where it is rolled up. */
  name: formula().required(),
});
type TableBundles = NonNullable<InferType<typeof bundles>>;

const tableAttrs = attrs({
  label: label(),
  /** Formula of the items. */
  list: formula().required(),
  /** Only items for which this holds. */
  filter: formula(),
  /** The order of the items: by this formula, least first unless descending. */
  sort: shape({ by: formula().required(), descending: boolean() }),
  columns: listOf(column, 40).min(1).required(),
  /** What is printed in place of a table without items; nothing at all where absent. */
  empty: placeholders().optional(),
  groups,
  bundles,
  /** Id of the column whose running sum is printed where a page ends and the next begins. */
  carry: text(120),
  /** Instead of the house style's. */
  style: oneOf(TABLE_STYLES),
});
export type LineTable = InferType<typeof tableAttrs>;

/** A table of a list's items, a row each. */
export interface LineTableBlock {
  type: 'lineTable';
  attrs: LineTable;
}

interface ComposedColumn {
  /** Of its definition. */
  id: string;
  heading: Run[];
  align: 'start' | 'end';
  width: ColumnDefinition['width'];
  /** Nothing but numbers, which stand with their decimal signs below one another. */
  numbers?: boolean;
}

interface ComposedCell {
  runs: Run[];
  detail?: Run[];
  picture?: PlacedPicture;
}

/** One row as it prints. */
export interface TableRow {
  cells: ComposedCell[];
  /** A part of the item above it. */
  part?: boolean;
  /** The running sum up to here, where the table carries one over its pages. */
  carried?: string;
}

/** Rows of a table that belong together: all of them, or a group's with its heading and its sum. */
export interface TableSection {
  heading?: Run[];
  rows: TableRow[];
  subtotal?: { label: Run[]; value: Run[] };
}

/** A line table as it prints, its rows in sections. */
export interface ComposedTable {
  kind: 'table';
  block: string;
  label: string;
  style: TableStyle;
  columns: ComposedColumn[];
  sections: TableSection[];
  /** What is written before the running sum at the end of a page and at the beginning of the next; its column. */
  carry?: { column: number; forward: string; brought: string };
}

export const lineTable: BlockKind<LineTableBlock, ComposedTable | ComposedParagraph> = {
  shape: leaf('lineTable', tableAttrs),
  words: ({ attrs: own }) => `the table “${own.label}”`,
  inner: unchanged,
  mapFormulas: (block, change) => ({ ...block, attrs: mapTable(block.attrs, change) }),
  mapWords: (block, change) => ({ ...block, attrs: mapTexts(block.attrs, change) }),
  faults({ attrs: { label: name, columns, carry } }) {
    const doubled = twice(columns).map(
      (each) => `Two columns of the table “${name}” are called “${each}”. Give one another id.`,
    );
    const carries = carry === undefined || columns.some((each) => each.id === carry);
    return carries ? doubled : [...doubled, `The table “${name}” carries “${carry}”, which is none of its columns.`];
  },
  compose: ({ attrs: own }, composer, row) => composeTable(composer, own, row),
};

function mapTable(table: LineTable, change: FormulaChanges): LineTable {
  const { list, filter, sort, groups: grouped, bundles: bundled, empty } = table;
  const ofItem = (source: string) => change.formula(source, list);
  return {
    ...table,
    list: change.formula(list),
    ...(filter !== undefined && { filter: ofItem(filter) }),
    ...(sort && { sort: { ...sort, by: ofItem(sort.by) } }),
    columns: table.columns.map((each) => ({
      ...each,
      heading: change.text(each.heading),
      formula: each.counter ? each.formula : ofItem(each.formula),
      ...(each.detail !== undefined && { detail: ofItem(each.detail) }),
      ...(each.when !== undefined && { when: change.formula(each.when) }),
      ...(each.total !== undefined && { total: change.formula(each.total) }),
    })),
    ...(grouped && { groups: mapGroups(grouped, change) }),
    ...(bundled && {
      bundles: {
        key: ofItem(bundled.key),
        partOf: ofItem(bundled.partOf),
        show: ofItem(bundled.show),
        name: ofItem(bundled.name),
      },
    }),
    ...(empty !== undefined && { empty: change.text(empty) }),
  };
}

function mapGroups(grouped: TableGroups, change: FormulaChanges): TableGroups {
  const { list, items, heading, subtotal } = grouped;
  return {
    list: change.formula(list),
    items: change.formula(items, list),
    heading: change.text(heading, list),
    ...(subtotal && {
      subtotal: { label: change.text(subtotal.label, list), formula: change.formula(subtotal.formula, list) },
    }),
  };
}

function mapTexts(table: LineTable, { text: change }: WordsChanges): LineTable {
  const { columns, empty, groups: grouped } = table;
  return {
    ...table,
    columns: columns.map((each) => ({ ...each, heading: change(each.id, each.heading) })),
    ...(empty !== undefined && { empty: change('empty', empty) }),
    ...(grouped && {
      groups: {
        ...grouped,
        heading: change('group', grouped.heading),
        ...(grouped.subtotal && {
          subtotal: { ...grouped.subtotal, label: change('subtotal', grouped.subtotal.label) },
        }),
      },
    }),
  };
}

/** Composes a line table: its items filtered, in order, in groups and bundles, each column in the edition's words. */
function composeTable(by: Composer, table: LineTable, outer?: Row): (ComposedTable | ComposedParagraph)[] {
  const { id, label, groups } = table;
  const rows = by.rows(id, itemsFormula(table, table.list), label, outer);
  if (rows.length === 0) return emptyTable(by, table, outer);
  const columns = table.columns.filter((column) => !column.when || by.chooses(`${id} ${column.id}`, column.when, id));
  const setting = new TableSetting(by, table, columns);
  const sections = groups
    ? groupSections(by, table, groups, by.rows(`${id} groups`, groups.list, label, outer), setting)
    : [{ rows: setting.rows(rows) }];
  const headings = columns.map((column, at): ComposedColumn => ({
    id: column.id,
    heading: by.placed(`${id} ${column.id}`, column.heading, id, outer),
    align: column.align,
    width: column.width,
    ...(column.align === 'end' && setting.isNumeric[at] && { numbers: true }),
  }));
  headings.forEach(({ heading }, at) => by.calls(`${id}.${columns[at]!.id}`, textOfRuns(heading)));
  headings.forEach(({ heading }, at) =>
    proveTotal(by, table, columns[at]!, textOfRuns(heading), setting.sums[at]!, outer),
  );
  const column = columns.findIndex((each) => each.id === table.carry);
  const carry =
    column === -1
      ? undefined
      : { column, forward: phrase('Carried forward', by.locale), brought: phrase('Brought forward', by.locale) };
  return [
    {
      kind: 'table',
      block: id,
      label,
      style: table.style ?? by.around.table,
      columns: headings,
      sections,
      ...(carry && { carry }),
    },
  ];
}

/** Holds a column to the total that it declares, or that the sheet declares for this very list and column. */
function proveTotal(
  by: Composer,
  table: LineTable,
  { id, formula, total }: ColumnDefinition,
  heading: string,
  sum: PrintedSum,
  outer?: Row,
): void {
  const held = by.totalOf({ id: `${table.id}.${id}`, list: itemsFormula(table, table.list), formula, total }, outer);
  if (held) by.prove(sum, { ...held, column: heading, block: table.id });
}

/** The formula of a table's items: what of a list passes its filter, in its order. */
function itemsFormula({ filter, sort }: LineTable, list: string): string {
  const passing = filter === undefined ? list : `(${list})[${filter}]`;
  return sort ? `SORT(${passing}, ${sort.by}, ${sort.descending ? 'true' : 'false'})` : passing;
}

/** A section for each group. What is all in one group needs neither its heading nor its sum. */
function groupSections(
  by: Composer,
  table: LineTable,
  grouped: TableGroups,
  groups: readonly Row[],
  setting: TableSetting,
): TableSection[] {
  const [first, second] = groups;
  if (!first || second) return groups.map((group) => groupSection(by, table, grouped, group, setting));
  return [{ rows: setting.groupRows(grouped, first) }];
}

function groupSection(
  by: Composer,
  table: LineTable,
  groups: TableGroups,
  group: Row,
  setting: TableSetting,
): TableSection {
  const { id } = table;
  const { heading, subtotal } = groups;
  setting.beginSection();
  const rows = setting.groupRows(groups, group);
  const section = { heading: by.placed(`${id} group`, heading, id, group), rows };
  if (!subtotal) return { ...section, subtotal: undefined };
  const placed = by.placed(`${id} subtotal label`, subtotal.label, id, group);
  const { runs, value, workings } = by.printed({
    id: `${id}.subtotal`,
    formula: subtotal.formula,
    format: 'plain',
    block: id,
    row: group,
  });
  // A subtotal stands under the last column, so it is that column's sum.
  const name = textOfRuns(placed);
  if (setting.sectionSum.value?.type === value.type)
    by.prove(setting.sectionSum, { column: name, label: name, value, workings, block: id });
  return { ...section, subtotal: { label: placed, value: runs } };
}

function emptyTable(by: Composer, { id, label, empty }: LineTable, row?: Row): ComposedParagraph[] {
  if (empty === undefined) return [];
  by.tellEmpty(id, label);
  return [
    { kind: 'paragraph', block: id, look: 'quiet', align: 'start', runs: by.placed(`${id} empty`, empty, id, row) },
  ];
}

/** An item with those that are parts of it, in the order of the list; an item that is no part of another stands alone. */
interface Bundle {
  whole: Row;
  parts: Bundle[];
}

/** Sets the rows of one table, counting them and adding up what they print. */
class TableSetting {
  /** What each column has printed. */
  readonly sums: readonly PrintedSum[];
  /** Whether a column has printed nothing but numbers. */
  readonly isNumeric: boolean[];
  /** What the last column has printed since the section began. */
  sectionSum = new PrintedSum();
  #position = 0;

  constructor(
    readonly by: Composer,
    readonly table: LineTable,
    readonly columns: readonly ColumnDefinition[],
  ) {
    this.sums = columns.map(() => new PrintedSum());
    this.isNumeric = columns.map(({ counter, picture }) => !counter && !picture);
  }

  beginSection(): void {
    this.sectionSum = new PrintedSum();
  }

  /** The rows of one group. */
  groupRows({ items }: TableGroups, group: Row): TableRow[] {
    const { by, table } = this;
    return this.rows(by.rows(`${table.id} items`, itemsFormula(table, items), table.label, group));
  }

  rows(items: readonly Row[]): TableRow[] {
    const { bundles } = this.table;
    if (!bundles) return items.map((item) => this.#row(item));
    return this.#bundled(items, bundles).flatMap((bundle) => this.#bundleRows(bundle, bundles, false));
  }

  /** The items that are no part of another one in this table, each with its parts. Of two wholes with one key, the first counts. */
  #bundled(items: readonly Row[], { key, partOf }: TableBundles): Bundle[] {
    const { by, table } = this;
    const bundles = items.map((whole): Bundle => ({ whole, parts: [] }));
    const byKey = new Map<string, Bundle>();
    for (const bundle of bundles) {
      const known = textIn(by.decides(`${table.id} key`, key, table.id, bundle.whole));
      if (known !== '' && !byKey.has(known)) byKey.set(known, bundle);
    }
    const owners = new Map<Bundle, Bundle>();
    for (const bundle of bundles) {
      const owner = byKey.get(textIn(by.decides(`${table.id} part`, partOf, table.id, bundle.whole)));
      if (owner && owner !== bundle && !isWithin(owner, bundle, owners)) owners.set(bundle, owner);
    }
    for (const [part, owner] of owners) owner.parts.push(part);
    return bundles.filter((bundle) => !owners.has(bundle));
  }

  #bundleRows({ whole, parts }: Bundle, bundles: TableBundles, isPart: boolean): TableRow[] {
    const { by, table } = this;
    const row = this.#row(whole, isPart);
    if (parts.length === 0) return [row];
    const shown = textIn(by.decides(`${table.id} show`, bundles.show, table.id, whole));
    if (shown === 'hidden') return [row];
    if (shown !== 'rolled up') return [row, ...parts.flatMap((part) => this.#bundleRows(part, bundles, true))];
    const names = allParts(parts).flatMap((part, at): Run[] => [
      ...(at === 0 ? [] : [{ kind: 'text' as const, text: '; ' }]),
      ...by.print({ id: `${table.id}.part`, formula: bundles.name, block: table.id, row: part }),
    ]);
    return [{ ...row, cells: row.cells.map((cell, at) => (at === this.#widest ? withDetail(cell, names) : cell)) }];
  }

  /** Where second lines have room. */
  get #widest(): number {
    return Math.max(
      0,
      this.columns.findIndex(({ width }) => width === 'rest'),
    );
  }

  #row(item: Row, part = false): TableRow {
    const position = part ? undefined : this.#position++;
    const cells = this.columns.map((column, at) => this.#cell(column, at, item, position));
    const carried = this.#carried();
    return { cells, ...(part && { part }), ...(carried !== undefined && { carried }) };
  }

  #cell(column: ColumnDefinition, at: number, row: Row, position: number | undefined): ComposedCell {
    if (column.counter)
      return {
        runs: position === undefined ? [] : [{ kind: 'text', text: inDigitsOf(this.by.locale, String(position + 1)) }],
      };
    const { by, table } = this;
    const { formula, format, mayBeBlank, picture, detail } = column;
    const request = { id: `${table.id}.${column.id}`, formula, format, mayBeBlank, block: table.id, row };
    if (picture) return { runs: [], picture: by.picture(request, { ...picture, alt: row.title }) };
    const { runs, value } = by.printed(request);
    this.sums[at]!.add(value);
    if (!isAmount(value) && runs.length > 0) this.isNumeric[at] = false;
    if (at === this.columns.length - 1) this.sectionSum.add(value);
    const second = detail
      ? by.print({ id: `${request.id}.detail`, formula: detail, mayBeBlank: true, block: table.id, row })
      : [];
    return { runs, ...(second.length > 0 && { detail: second }) };
  }

  /** The running sum up to this row, as its column prints it. */
  #carried(): string | undefined {
    const at = this.columns.findIndex(({ id }) => id === this.table.carry);
    const value = this.sums[at]?.value;
    return value && formatValue(value, this.by.locale, 'plain');
  }
}

/** Whether an item is, through what it is a part of, within another one. */
function isWithin(bundle: Bundle, whole: Bundle, owners: ReadonlyMap<Bundle, Bundle>): boolean {
  for (let above: Bundle | undefined = bundle; above; above = owners.get(above)) if (above === whole) return true;
  return false;
}

const allParts = (parts: readonly Bundle[]): Row[] =>
  parts.flatMap(({ whole, parts: inner }) => [whole, ...allParts(inner)]);

function withDetail(cell: ComposedCell, runs: Run[]): ComposedCell {
  return { ...cell, detail: cell.detail ? [...cell.detail, { kind: 'break' }, ...runs] : runs };
}
