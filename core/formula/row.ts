import { memberPath, itemPath } from '../record/value-path';
import { canonical, type Value } from './value';

/** A chain of things, the last added first: with ten thousands of short ones, much smaller than lists are. */
export interface Chain<Item> {
  readonly item: Item;
  readonly next: Chain<Item> | undefined;
}

/** What a chain holds. */
export function* itemsOf<Item>(chain: Chain<Item> | undefined): Generator<Item> {
  for (let link = chain; link; link = link.next) yield link.item;
}

/** What is computed from a value and is to be computed again when that changes: a cell of a sheet. */
export interface Dependent {
  readonly state: 'new' | 'evaluating' | 'done';
  dependents?: Dependents;
  /** Forgets its value, to be computed again when next asked for. */
  reset(): void;
}
export type Dependents = Chain<Dependent> | Set<Dependent>;

/** One value of a row, and the cells that were computed from it. */
export class RowField {
  dependents?: Dependents;

  constructor(
    readonly row: Row,
    readonly name: string,
    public value: Value,
  ) {}

  get path(): string {
    return memberPath(this.row.path, this.name);
  }

  get label(): string {
    return this.row.label(this.name);
  }

  /** Whether it counts as used. */
  get counts(): boolean {
    return this.row.counts && this.value.type !== 'record';
  }

  /** What counts when a document is compared with its record later. */
  get canonical(): string {
    return canonical(this.value);
  }
}

/** Something with named values: a record of the CRM, an item of a list, a group made by GROUP. */
export abstract class Row {
  /** What people call it. */
  abstract readonly title: string;
  /** What the sheet that it belongs to keeps with it. */
  kept: object | undefined;
  protected readonly fields = new Map<string, RowField>();

  constructor(
    /** Path for digests: lines by their id, `deal.lines{L-17}`, so that a moved line is still the same line. */
    readonly path: string,
    readonly id: string,
    /** Where it stands in its list, for messages: "Line 4, Vent motor". Absent for the record itself. */
    public place?: string,
    /** The list it came from, which decides the figures it has: `lines` or a derived list's name. */
    readonly list?: string,
  ) {}

  /** Whether its values count as used: those of the CRM and the register do, a group's key or a table's cell do not. */
  abstract readonly counts: boolean;
  abstract has(name: string): boolean;
  /** The record type that a name leads to, where it leads to one record. */
  abstract leadsTo(name: string): string | undefined;
  /** What people call the value of that name. */
  abstract label(name: string): string;
  /** Rows of the same shape have the same names, so that names need to be looked up for one of them only. */
  abstract get shape(): string;
  protected abstract read(name: string): Value;

  /** Its own value of that name; only asked for names it has. */
  field(name: string): RowField {
    let field = this.fields.get(name);
    if (!field) this.fields.set(name, (field = new RowField(this, name, this.read(name))));
    return field;
  }

  value(name: string): Value {
    return this.field(name).value;
  }
}

/** A row over plain values: a group, a row of a table, or one of the roots `company`, `document`, `ask`, `user`. */
export class ValuesRow extends Row {
  readonly counts: boolean = false;
  readonly #shape: string | undefined;

  constructor(
    path: string,
    id: string,
    readonly title: string,
    readonly values: Readonly<Record<string, Value>>,
    list?: string,
    place?: string,
    shape?: string,
  ) {
    super(path, id, place, list);
    this.#shape = shape;
  }

  get shape(): string {
    return this.#shape ?? Object.keys(this.values).join();
  }

  /** The same row as an item of a derived list, whose columns it has. */
  inList(list: string): ValuesRow {
    return new ValuesRow(itemPath(list, this.id), this.id, this.title, this.values, list, this.place, this.#shape);
  }

  has(name: string): boolean {
    return Object.hasOwn(this.values, name);
  }

  leadsTo(): undefined {
    return undefined;
  }

  label(name: string): string {
    return name.replaceAll('_', ' ');
  }

  protected read(name: string): Value {
    return this.values[name]!;
  }
}
