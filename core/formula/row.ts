import { Decimal } from '../money/decimal';
import { own } from '../record/own';
import { fieldLabel, fieldOf, recordTypeOf, type FieldSchema, type RecordSchema } from '../record/schema';
import { isRecord, isRecordList, type FieldValue, type RecordSnapshot } from '../record/snapshot';
import type { Cell, Chain, Source } from './cell';
import { dayOf } from './date';
import type { Scope } from './names';
import {
  canonical, error, money, percent, sentence, text, type BlankValue, type ListValue, type MoneyKind, type Value,
} from './value'; // prettier-ignore

/** One value of a row, and the cells that were computed from it. */
export class RowField {
  dependents?: Chain<Cell> | Set<Cell>;

  constructor(
    readonly row: Row,
    readonly name: string,
    public value: Value,
  ) {}

  get path(): string {
    return `${this.row.path}.${this.name}`;
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
  /** What its bare names mean; kept here by the sheet that owns the row. */
  scope?: Scope;
  /** Its own figures, by their position in the list's; kept here by the sheet that owns the row. */
  cells: (Cell | undefined)[] | undefined;
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

/** A row over a record that was read from the CRM. */
export class RecordRow extends Row {
  readonly counts = true;

  constructor(
    private snapshot: RecordSnapshot,
    readonly source: { schema: RecordSchema; timeZone: string },
    path: string,
    place?: string,
    list?: string,
  ) {
    super(path, snapshot.id, place, list);
  }

  get title(): string {
    const { name } = this.snapshot.fields;
    return typeof name === 'string' ? name : this.id;
  }

  get shape(): string {
    return this.snapshot.type;
  }

  has(name: string): boolean {
    const type = recordTypeOf(this.source.schema, this.snapshot.type);
    return Object.hasOwn(type ? type.fields : this.snapshot.fields, name);
  }

  leadsTo(name: string): string | undefined {
    const field = this.#field(name);
    return field?.type === 'record' ? field.target : undefined;
  }

  label(name: string): string {
    return fieldLabel(this.source.schema, this.snapshot.type, name);
  }

  /**
   * Takes the record as it is now. Fields, and items of lists, that stayed the same stay the same objects.
   * @returns what changed, here and in what belongs to it: fields, and figures whose errors name a place that is another now
   */
  update(snapshot: RecordSnapshot, place = this.place): Source[] {
    const before = this.snapshot;
    const moved = place !== this.place;
    this.snapshot = snapshot;
    this.place = place;
    if (before === snapshot && !moved) return [];
    const changed: Source[] = moved
      ? ((this.cells ?? []).filter((cell) => cell?.value.type === 'error') as Cell[])
      : [];
    for (const field of this.fields.values()) {
      const [was, is] = [before.fields[field.name], snapshot.fields[field.name]];
      if (was === is && !(moved && (field.value.type === 'blank' || field.value.type === 'error'))) continue;
      changed.push(...this.#replace(field, is));
    }
    return changed;
  }

  #replace(field: RowField, is: FieldValue | undefined): Source[] {
    const { value } = field;
    if (value.type === 'record' && value.row instanceof RecordRow && is && isRecord(is) && is.id === value.row.id) {
      return value.row.update(is);
    }
    if (is !== undefined && isRecordList(is) && value.type === 'list') return this.#replaceList(field, value, is);
    const next = this.read(field.name);
    const toldOf = next.type === 'error' || next.type === 'blank';
    if (canonical(next) === canonical(value) && next.type === value.type && !toldOf) return [];
    field.value = next;
    return [field];
  }

  /** Rows of records that are still there are kept; the list itself changes only if its members or their order do. */
  #replaceList(field: RowField, list: ListValue, records: readonly RecordSnapshot[]): Source[] {
    const known = new Map(list.items.flatMap((item) => (item.type === 'record' ? [[item.row.id, item.row]] : [])));
    const changed: Source[] = [];
    const rows = records.map((record, position) => {
      const row = known.get(record.id);
      if (!(row instanceof RecordRow)) return this.#item(field.name, record, position);
      changed.push(...row.update(record, placeOf(record, position)));
      return row;
    });
    const same = rows.length === list.items.length && rows.every((row, position) => isRow(list.items[position], row));
    if (!same) {
      field.value = { ...list, items: rows.map((row): Value => ({ type: 'record', row })) };
      changed.push(field);
    }
    return changed;
  }

  #field(name: string): FieldSchema | undefined {
    return fieldOf(this.source.schema, this.snapshot.type, name);
  }

  protected read(name: string): Value {
    const raw = own(this.snapshot.fields, name);
    const path = `${this.path}.${name}`;
    if (raw === undefined) return error(`“${this.label(name)}” was not read from the CRM for this document.`, { path });
    return this.#typed(name, raw, path);
  }

  #typed(name: string, raw: FieldValue, path: string): Value {
    if (isRecordList(raw)) return this.#list(name, raw, path);
    if (raw === null) {
      const type = this.#field(name)?.type;
      if (type === 'choices') return { type: 'list', items: [] };
      if (type === 'boolean') return { type: 'boolean', value: false };
      return this.#blank(name, path);
    }
    if (typeof raw === 'string') return raw.trim() === '' ? this.#blank(name, path) : text(raw);
    if (typeof raw === 'boolean') return { type: 'boolean', value: raw };
    if (isRecord(raw)) return { type: 'record', row: new RecordRow(raw, this.source, path, this.place) };
    if ('number' in raw) return this.#decimal(name, raw.number, (value) => ({ type: 'number', value }));
    if ('percent' in raw) return this.#decimal(name, raw.percent, percent);
    if ('amount' in raw) {
      const { amount, currency } = raw;
      if (!currency) return error(`${this.#placed(this.label(name))} has no currency.`, { path });
      return this.#decimal(name, amount, (value) => money(value, currency, 'price'));
    }
    if ('date' in raw) return dated(raw.date, path);
    if ('datetime' in raw) return timed(raw.datetime, this.source.timeZone, path);
    if ('rich' in raw) return raw.rich.trim() === '' ? this.#blank(name, path) : { type: 'rich', html: raw.rich };
    if ('image' in raw) return { type: 'image', picture: raw.image, path };
    return { type: 'list', items: raw.choices.map(text) };
  }

  #decimal(name: string, source: string, valued: (value: Decimal) => Value): Value {
    const value = Decimal.read(source);
    if (value) return valued(value);
    const shown = source.length > 40 ? `${source.slice(0, 40)}…` : source;
    return error(`${this.#placed(this.label(name))} is “${shown}”, which is no number that can be computed with.`, { path: `${this.path}.${name}` }); // prettier-ignore
  }

  #placed(words: string): string {
    return this.place ? `${this.place}: ${words}` : words;
  }

  #list(name: string, records: readonly RecordSnapshot[], path: string): Value {
    const items = records.map((record, position): Value => ({ type: 'record', row: this.#item(name, record, position) })); // prettier-ignore
    return { type: 'list', items, of: { list: name, recordType: this.#field(name)?.target }, path };
  }

  #item(list: string, record: RecordSnapshot, position: number): RecordRow {
    const path = `${this.path}.${list}{${record.id}}`;
    return new RecordRow(record, this.source, path, placeOf(record, position), list);
  }

  #blank(name: string, path: string): BlankValue {
    const label = this.label(name).toLowerCase();
    const owner = this.place ? '' : `the ${this.#typeLabel()} has `;
    return { type: 'blank', cause: `${owner}no ${label}`, place: this.place, path };
  }

  #typeLabel(): string {
    return recordTypeOf(this.source.schema, this.snapshot.type)?.label.toLowerCase() ?? this.path.split('.').at(-1)!;
  }
}

function isRow(item: Value | undefined, row: Row): boolean {
  return item?.type === 'record' && item.row === row;
}

function placeOf(record: RecordSnapshot, position: number): string {
  const { name } = record.fields;
  return `Line ${position + 1}${typeof name === 'string' ? `, ${name}` : ''}`;
}

function dated(iso: string, path: string): Value {
  const day = dayOf(iso);
  return day === undefined ? error(`${sentence(iso)} is not a date.`, { path }) : { type: 'date', day };
}

function timed(iso: string, zone: string, path: string): Value {
  const at = Date.parse(iso);
  return Number.isNaN(at)
    ? error(`${sentence(iso)} is not a date and time.`, { path })
    : { type: 'datetime', at, zone };
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
    return new ValuesRow(`${list}{${this.id}}`, this.id, this.title, this.values, list, this.place, this.#shape);
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

/** What a list of these fields would hold, by the schema: lets a sum of no lines be a zero of money. */
export function moneyHeld(schema: RecordSchema, type: string | undefined, name: string): MoneyKind | undefined {
  return fieldOf(schema, type, name)?.type === 'money' ? 'price' : undefined;
}
