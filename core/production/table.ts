import type { Row } from '../formula/row';
import { formatValue, type Value } from '../formula/value';
import { inDigitsOf } from '../money/number-symbols';
import type { ColumnDefinition, LineTable, TableBundles, TableGroups, TableStyle } from '../template/layout';
import { phrase } from '../words/phrases';
import { columnKey, plainly, type Compositor } from './compositor';
import type { ComposedBlock, ComposedCell, ComposedColumn, Run, TableRow, TableSection } from './document';
import { PrintedSum } from './printed-sum';

/** Composes a line table: its items filtered, in order, in groups and bundles, each column in the edition's words. */
export function composeTable(by: Compositor, table: LineTable, style: TableStyle, outer?: Row): ComposedBlock[] {
  const { id, label, groups } = table;
  const rows = by.rows(id, itemsFormula(table, table.list), label, outer);
  if (rows.length === 0) return emptyTable(by, table, outer);
  const columns = table.columns.filter((column) => !column.when || by.chooses(`${id} ${column.id}`, column.when, id));
  const setting = new TableSetting(by, table, columns);
  const sections = groups
    ? by.rows(`${id} groups`, groups.list, label, outer).map((group) => groupSection(by, table, groups, group, setting))
    : [{ rows: setting.rows(rows) }];
  const headings = columns.map((column): ComposedColumn => ({
    heading: by.placed(`${id} ${column.id}`, column.heading, id, outer),
    align: column.align,
    width: column.width,
  }));
  headings.forEach(({ heading }, at) =>
    proveTotal(by, table, columns[at]!, plainly(heading), setting.sums[at]!, outer),
  );
  const column = columns.findIndex((each) => each.id === table.carry);
  const carry = column === -1 ? undefined : { column, forward: phrase('Carried forward', by.locale), brought: phrase('Brought forward', by.locale) }; // prettier-ignore
  return [{ kind: 'table', source: id, label, style: table.style ?? style, columns: headings, sections, ...(carry && { carry }) }]; // prettier-ignore
}

/** Holds a column to the total that it declares, or that the sheet declares for this very list and column. */
function proveTotal(by: Compositor, table: LineTable, column: ColumnDefinition, heading: string, sum: PrintedSum, outer?: Row): void {
  const total = column.total ?? declaredTotal(by, table, column);
  if (total === undefined) return;
  const cell = by.sheet.evaluate(`${table.id}.${column.id} total`, total, outer);
  const label = by.sheet.world.figures.get(total)?.label ?? total;
  by.prove(sum, { id: `printed ${table.id} ${heading} ${label}`, column: heading, label, total: cell.value, workings: by.explained(cell), block: table.id });
} // prettier-ignore

function declaredTotal(by: Compositor, table: LineTable, { formula }: ColumnDefinition): string | undefined {
  const key = columnKey(itemsFormula(table, table.list), formula);
  return key === undefined ? undefined : by.declaredTotals.get(key);
}

/** The formula of a table's items: what of a list passes its filter, in its order. */
function itemsFormula({ filter, sort }: LineTable, list: string): string {
  const passing = filter === undefined ? list : `(${list})[${filter}]`;
  return sort ? `SORT(${passing}, ${sort.by}, ${sort.descending ? 'true' : 'false'})` : passing;
}

function groupSection(by: Compositor, table: LineTable, groups: TableGroups, group: Row, setting: TableSetting): TableSection {
  const { id, label } = table;
  const { heading, items, subtotal } = groups;
  setting.beginSection();
  const rows = setting.rows(by.rows(`${id} items`, itemsFormula(table, items), label, group));
  const section = { heading: by.placed(`${id} group`, heading, id, group), rows };
  if (!subtotal) return { ...section, subtotal: undefined };
  const placed = by.placed(`${id} subtotal label`, subtotal.label, id, group);
  const { runs, value, workings } = by.printed({ id: `${id}.subtotal`, formula: subtotal.formula, format: 'plain', block: id, row: group });
  // A subtotal stands under the last column, so it is that column's sum.
  const name = plainly(placed);
  if (setting.sectionSum.value?.type === value.type) by.prove(setting.sectionSum, { id: `printed ${id} ${name} ${name}`, column: name, label: name, total: value, workings, block: id });
  return { ...section, subtotal: { label: placed, value: runs } };
} // prettier-ignore

function emptyTable(by: Compositor, { id, label, empty }: LineTable, row?: Row): ComposedBlock[] {
  if (empty === undefined) return [];
  by.findings.push({
    id: `empty ${id}`,
    severity: 'warns',
    title: `Nothing in “${label}”`,
    sentence: 'The deal has no lines for this table, so a sentence is printed in its place.',
    block: id,
    values: [],
  });
  return [{ kind: 'paragraph', source: id, look: 'quiet', align: 'start', runs: by.placed(`${id} empty`, empty, id, row) }]; // prettier-ignore
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
  /** What the last column has printed since the section began. */
  sectionSum = new PrintedSum();
  #position = 0;

  constructor(
    readonly by: Compositor,
    readonly table: LineTable,
    readonly columns: readonly ColumnDefinition[],
  ) {
    this.sums = columns.map(() => new PrintedSum());
  }

  beginSection(): void {
    this.sectionSum = new PrintedSum();
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
      const known = textOf(by.decides(`${table.id} key`, key, table.id, bundle.whole));
      if (known !== '' && !byKey.has(known)) byKey.set(known, bundle);
    }
    const owners = new Map<Bundle, Bundle>();
    for (const bundle of bundles) {
      const owner = byKey.get(textOf(by.decides(`${table.id} part`, partOf, table.id, bundle.whole)));
      if (owner && owner !== bundle && !isWithin(owner, bundle, owners)) owners.set(bundle, owner);
    }
    for (const [part, owner] of owners) owner.parts.push(part);
    return bundles.filter((bundle) => !owners.has(bundle));
  }

  #bundleRows({ whole, parts }: Bundle, bundles: TableBundles, isPart: boolean): TableRow[] {
    const { by, table } = this;
    const row = this.#row(whole, isPart);
    if (parts.length === 0) return [row];
    const shown = textOf(by.decides(`${table.id} show`, bundles.show, table.id, whole));
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
    return Math.max(0, this.columns.findIndex(({ width }) => width === 'rest')); // prettier-ignore
  }

  #row(item: Row, part = false): TableRow {
    const position = part ? undefined : this.#position++;
    const cells = this.columns.map((column, at) => this.#cell(column, at, item, position));
    const carried = this.#carried();
    return { cells, ...(part && { part }), ...(carried !== undefined && { carried }) };
  }

  #cell(column: ColumnDefinition, at: number, row: Row, position: number | undefined): ComposedCell {
    if (column.counter) return { runs: position === undefined ? [] : [{ kind: 'text', text: inDigitsOf(this.by.locale, String(position + 1)) }] }; // prettier-ignore
    const { by, table } = this;
    const { formula, format, mayBeBlank, picture, detail } = column;
    const request = { id: `${table.id}.${column.id}`, formula, format, mayBeBlank, block: table.id, row };
    if (picture) return { runs: [], picture: by.picture(request, { ...picture, alt: row.title }) };
    const { runs, value } = by.printed(request);
    this.sums[at]!.add(value);
    if (at === this.columns.length - 1) this.sectionSum.add(value);
    const second = detail ? by.print({ id: `${request.id}.detail`, formula: detail, mayBeBlank: true, block: table.id, row }) : []; // prettier-ignore
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

const allParts = (parts: readonly Bundle[]): Row[] => parts.flatMap(({ whole, parts: inner }) => [whole, ...allParts(inner)]); // prettier-ignore

function withDetail(cell: ComposedCell, runs: Run[]): ComposedCell {
  return { ...cell, detail: cell.detail ? [...cell.detail, { kind: 'break' }, ...runs] : runs };
}

const textOf = (value: Value): string => (value.type === 'text' ? value.value : '');
