import type { Row } from '../formula/row';
import { isAmount, type Value } from '../formula/value';
import { Decimal } from '../money/decimal';
import { formatAmount, formatDecimal } from '../money/format';
import { inDigitsOf } from '../money/number-symbols';
import type { ColumnDefinition, LineTable, TableBundles, TableGroups, TableStyle } from '../template/layout';
import { phrase } from '../words/phrases';
import type { Compositor } from './compositor';
import type { ComposedBlock, ComposedCell, ComposedColumn, Run, TableRow, TableSection } from './document';

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
  const column = columns.findIndex((each) => each.id === table.carry);
  const carry = column === -1 ? undefined : { column, forward: phrase('Carried forward', by.locale), brought: phrase('Brought forward', by.locale) }; // prettier-ignore
  return [{ kind: 'table', source: id, label, style: table.style ?? style, columns: headings, sections, ...(carry && { carry }) }]; // prettier-ignore
}

/** The formula of a table's items: what of a list passes its filter, in its order. */
function itemsFormula({ filter, sort }: LineTable, list: string): string {
  const passing = filter === undefined ? list : `(${list})[${filter}]`;
  return sort ? `SORT(${passing}, ${sort.by}, ${sort.descending ? 'true' : 'false'})` : passing;
}

function groupSection(by: Compositor, table: LineTable, groups: TableGroups, group: Row, setting: TableSetting): TableSection {
  const { id, label } = table;
  const { heading, items, subtotal } = groups;
  return {
    heading: by.placed(`${id} group`, heading, id, group),
    rows: setting.rows(by.rows(`${id} items`, itemsFormula(table, items), label, group)),
    subtotal: subtotal && {
      label: by.placed(`${id} subtotal label`, subtotal.label, id, group),
      value: by.print({ id: `${id}.subtotal`, formula: subtotal.formula, format: 'plain', block: id, row: group }),
    },
  };
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

/** A whole with its parts, in the order of the list; an item that is no part of another stands alone. */
interface Bundle {
  whole: Row;
  parts: Row[];
}

/** Sets the rows of one table, counting them and adding up what is carried over its pages. */
class TableSetting {
  #position = 0;
  #running = Decimal.of(0);

  constructor(
    readonly by: Compositor,
    readonly table: LineTable,
    readonly columns: readonly ColumnDefinition[],
  ) {}

  rows(items: readonly Row[]): TableRow[] {
    const { bundles } = this.table;
    if (!bundles) return items.map((item) => this.#row(item));
    return this.#bundled(items, bundles).flatMap((bundle) => this.#bundleRows(bundle, bundles));
  }

  #bundled(items: readonly Row[], { key, partOf }: TableBundles): Bundle[] {
    const { by, table } = this;
    const wholes = new Map<string, Bundle>();
    const owners = items.map((item) => by.decides(`${table.id} part`, partOf, table.id, item));
    const bundles = items.map((whole): Bundle => ({ whole, parts: [] }));
    bundles.forEach((bundle, at) => {
      if (owners[at]!.type !== 'text')
        wholes.set(textOf(by.decides(`${table.id} key`, key, table.id, bundle.whole)), bundle);
    });
    return bundles.filter(({ whole }, at) => {
      const owner = wholes.get(textOf(owners[at]!));
      // A part whose whole is not in this table stands for itself.
      if (owners[at]!.type !== 'text' || !owner) return true;
      owner.parts.push(whole);
      return false;
    });
  }

  #bundleRows({ whole, parts }: Bundle, { show, name }: TableBundles): TableRow[] {
    const { by, table } = this;
    if (parts.length === 0) return [this.#row(whole)];
    const shown = textOf(by.decides(`${table.id} show`, show, table.id, whole));
    if (shown === 'hidden') return [this.#row(whole)];
    if (shown !== 'rolled up') return [this.#row(whole), ...parts.map((part) => this.#row(part, true))];
    const row = this.#row(whole);
    const names = parts.flatMap((part, at): Run[] => [
      ...(at === 0 ? [] : [{ kind: 'text' as const, text: '; ' }]),
      ...by.print({ id: `${table.id}.part`, formula: name, block: table.id, row: part }),
    ]);
    return [{ ...row, cells: row.cells.map((cell, at) => (at === this.#widest ? withDetail(cell, names) : cell)) }];
  }

  /** Where second lines have room. */
  get #widest(): number {
    return Math.max(0, this.columns.findIndex(({ width }) => width === 'rest')); // prettier-ignore
  }

  #row(item: Row, part = false): TableRow {
    const position = part ? undefined : this.#position++;
    const cells = this.columns.map((column) => this.#cell(column, item, position));
    const carried = this.table.carry === undefined ? undefined : this.#carry(item);
    return { cells, ...(part && { part }), ...(carried !== undefined && { carried }) };
  }

  #cell(column: ColumnDefinition, row: Row, position: number | undefined): ComposedCell {
    if (column.counter) return { runs: position === undefined ? [] : [{ kind: 'text', text: inDigitsOf(this.by.locale, String(position + 1)) }] }; // prettier-ignore
    const { by, table } = this;
    const { formula, format, mayBeBlank, picture, detail } = column;
    const request = { id: `${table.id}.${column.id}`, formula, format, mayBeBlank, block: table.id, row };
    if (picture) return { runs: [], picture: by.picture(request, { ...picture, alt: row.title }) };
    const runs = by.print(request);
    const second = detail ? by.print({ id: `${request.id}.detail`, formula: detail, mayBeBlank: true, block: table.id, row }) : []; // prettier-ignore
    return { runs, ...(second.length > 0 && { detail: second }) };
  }

  /** The running sum with this row, as its column prints it. */
  #carry(row: Row): string | undefined {
    const { by, table } = this;
    const column = this.columns.find(({ id }) => id === table.carry);
    if (!column) return undefined;
    const { value } = by.sheet.evaluate(`${table.id}.${column.id} ${row.path}`, column.formula, row);
    if (!isAmount(value)) return undefined;
    this.#running = this.#running.plus(value.value);
    return value.type === 'money'
      ? formatAmount(this.#running, value.currency, by.locale)
      : formatDecimal(this.#running, by.locale, 0, 12);
  }
}

function withDetail(cell: ComposedCell, runs: Run[]): ComposedCell {
  return { ...cell, detail: cell.detail ? [...cell.detail, { kind: 'break' }, ...runs] : runs };
}

const textOf = (value: Value): string => (value.type === 'text' ? value.value : '');
