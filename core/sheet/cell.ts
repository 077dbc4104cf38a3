import type { Expression } from '../formula/ast';
import type { Figure } from './figure';
import { itemsOf, type Chain, type Dependent, type Dependents, type Row, type RowField } from '../formula/row';
import { error, type Value } from '../formula/value';

const NOT_YET: Value = error('Not computed yet.');
const NOTHING: readonly never[] = [];
/** Up to this many dependents are kept in a chain, which for the usual two or three is the smaller thing. */
const FEW = 8;

/** What a cell is computed from: a value of a row, or another cell. */
export type Source = RowField | Cell;

/** The values of one name over the items of a list: all fields, or all figures. */
export interface Column {
  readonly fields: readonly RowField[];
  readonly cells: readonly Cell[];
}

/** Something that counts as used: path → canonical text. A field, or which items a filter chose. */
export interface Read {
  readonly path: string;
  readonly canonical: string;
}

/**
 * One evaluation: of a figure, or of a formula on the page. It knows what it was computed from and what was computed
 * from it, so that it can be explained, compared later, and computed again only when something under it changed.
 */
export class Cell {
  state: 'new' | 'evaluating' | 'done' = 'new';
  expression?: Expression;
  value: Value = NOT_YET;
  /** What was computed from it. */
  dependents?: Dependents;
  /** What counts as used, read directly. */
  reads: Chain<Read> | undefined = undefined;
  /** Cells whose values went into this one's; one may stand here several times. */
  through: Chain<Cell> | undefined = undefined;
  /** Columns of lists whose values went into this one's. */
  columns: readonly Column[] = NOTHING;
  /** Columns it is told about; weakly, since every change of a list makes new ones. */
  #watched?: WeakSet<Column>;

  constructor(
    readonly name: string,
    readonly formula: string,
    /** The item in scope. */
    readonly row?: Row,
    readonly figure?: Figure,
    /** Whether it is computed again after a change; one that is asked for only once need not know what it depends on. */
    readonly kept = true,
  ) {}

  /** `subtotal`, `net of deal.lines{L-3}`, or the id of the value on the page. */
  get id(): string {
    return this.row && this.figure ? `${this.name} of ${this.row.path}` : this.name;
  }

  /**
   * From now on a change of `source` is a change of this cell. It stays so when a later computation no longer reads
   * it: computing once too often is harmless, forgetting thousands of sources at every change is not free.
   */
  dependOn(source: Source): void {
    if (!this.kept) return;
    const { dependents } = source;
    if (dependents instanceof Set) {
      dependents.add(this);
      return;
    }
    let count = 0;
    for (let link = dependents; link; link = link.next) {
      if (link.item === this) return;
      count++;
    }
    source.dependents = count < FEW ? { item: this, next: dependents } : new Set([this, ...itemsOf(dependents)]);
  }

  /** Depends on all values of a column; `used` unless they only decide. */
  dependOnColumn(column: Column, used: boolean): void {
    if (used) this.columns = [...this.columns, column];
    if (this.#watched?.has(column)) return;
    for (const source of column.fields) this.dependOn(source);
    for (const source of column.cells) this.dependOn(source);
    if (this.kept) (this.#watched ??= new WeakSet()).add(column);
  }

  use(read: Read): void {
    this.reads = { item: read, next: this.reads };
  }

  goThrough(cell: Cell): void {
    this.through = { item: cell, next: this.through };
  }

  /** Forgets its value, to be computed again when next asked for. */
  reset(): void {
    this.state = 'new';
    this.reads = undefined;
    this.through = undefined;
    this.columns = NOTHING;
  }
}

/** Resets every cell that was computed from these values, directly or through others, and cells among them. */
export function invalidate(sources: Iterable<Source>): void {
  const waiting: (RowField | Dependent)[] = [...sources];
  for (const source of waiting) if (source instanceof Cell) source.reset();
  for (let source = waiting.pop(); source; source = waiting.pop()) {
    const { dependents } = source;
    for (const cell of dependents instanceof Set ? dependents : itemsOf(dependents)) {
      if (cell.state !== 'done') continue;
      cell.reset();
      waiting.push(cell);
    }
  }
}

/** Where an input of a figure came from. */
export type InputSource = { kind: 'field'; field: RowField } | { kind: 'cell'; cell: Cell } | { kind: 'computed' };

/** A value found for a node of a formula, and where it came from. */
export interface Found {
  value: Value;
  source: InputSource;
}

/** The figures whose values went straight into a cell, also by way of what is computed once for many cells. */
export function figuresUnder(cell: Cell): Cell[] {
  const under = [...new Set(itemsOf(cell.through)), ...new Set(cell.columns.flatMap(({ cells }) => cells))];
  return under.flatMap((each) => (each.figure ? [each] : figuresUnder(each)));
}

/** All that a cell read, itself and through other cells: path → canonical text. */
export function collectReads(cell: Cell, into: Map<string, string>, seen = new Set<Cell>()): void {
  if (seen.has(cell)) return;
  seen.add(cell);
  for (const { path, canonical } of itemsOf(cell.reads)) into.set(path, canonical);
  for (const next of itemsOf(cell.through)) collectReads(next, into, seen);
  for (const { fields, cells } of cell.columns) {
    for (const field of fields) if (field.counts) into.set(field.path, field.canonical);
    for (const next of cells) collectReads(next, into, seen);
  }
}
