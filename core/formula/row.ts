import { Decimal } from '../money/decimal';
import { fieldLabel, type FieldSchema, type RecordSchema } from '../record/schema';
import { isRecord, isRecordList, type FieldValue, type RecordSnapshot } from '../record/snapshot';
import { dayOf } from './date';
import { error, money, percent, sentence, text, type BlankValue, type MoneyKind, type Value } from './value';

/** Something with named values: a record of the CRM, an item of a list, a group made by GROUP. */
export interface Row {
  /** Path for digests: lines by their id, `deal.lines{L-17}`, so that a moved line is still the same line. */
  path: string;
  id: string;
  /** What people call it. */
  title: string;
  /** Where it stands in its list, for messages: "Line 4, Vent motor". Absent for the record itself. */
  place?: string;
  /** The list it came from, which decides the figures it has: `lines` or a derived list's name. */
  list?: string;
  has(name: string): boolean;
  /** Its own value of that name; only asked for names it has. */
  value(name: string): Value;
  /** What people call the value of that name. */
  label(name: string): string;
}

/** A row over a record that was read from the CRM. */
export class RecordRow implements Row {
  readonly id: string;
  readonly title: string;
  readonly #values = new Map<string, Value>();

  constructor(
    readonly snapshot: RecordSnapshot,
    readonly schema: RecordSchema,
    readonly path: string,
    readonly place?: string,
    readonly list?: string,
  ) {
    this.id = snapshot.id;
    const { name } = snapshot.fields;
    this.title = typeof name === 'string' ? name : snapshot.id;
  }

  has(name: string): boolean {
    return this.#field(name) !== undefined || name in this.snapshot.fields;
  }

  label(name: string): string {
    return fieldLabel(this.schema, this.snapshot.type, name);
  }

  value(name: string): Value {
    let value = this.#values.get(name);
    if (!value) {
      value = this.#read(name);
      this.#values.set(name, value);
    }
    return value;
  }

  #field(name: string): FieldSchema | undefined {
    return this.schema.types[this.snapshot.type]?.fields[name];
  }

  #read(name: string): Value {
    const raw = this.snapshot.fields[name];
    const path = `${this.path}.${name}`;
    if (raw === undefined) {
      const label = fieldLabel(this.schema, this.snapshot.type, name);
      return error(`“${label}” was not read from the CRM for this document.`, { path });
    }
    return this.#typed(name, raw, path);
  }

  #typed(name: string, raw: FieldValue, path: string): Value {
    const field = this.#field(name);
    if (isRecordList(raw)) return this.#list(name, raw, path);
    if (raw === null) {
      if (field?.type === 'choices') return { type: 'list', items: [] };
      if (field?.type === 'boolean') return { type: 'boolean', value: false };
      return this.#blank(name, path);
    }
    if (typeof raw === 'string') return raw.trim() === '' ? this.#blank(name, path) : text(raw);
    if (typeof raw === 'boolean') return { type: 'boolean', value: raw };
    if (isRecord(raw)) return { type: 'record', row: new RecordRow(raw, this.schema, path, this.place) };
    if ('number' in raw) return { type: 'number', value: new Decimal(raw.number) };
    if ('percent' in raw) return percent(new Decimal(raw.percent));
    if ('amount' in raw) {
      if (!raw.currency) return error(`${this.#prefix()}${fieldLabel(this.schema, this.snapshot.type, name)} has no currency.`, { path }); // prettier-ignore
      return money(new Decimal(raw.amount), raw.currency, 'price');
    }
    if ('date' in raw) return dated(raw.date, path);
    if ('datetime' in raw) return dated(raw.datetime.slice(0, 10), path);
    return { type: 'list', items: raw.choices.map(text) };
  }

  #list(name: string, records: readonly RecordSnapshot[], path: string): Value {
    const rows = records.map((record, position) => {
      const title = typeof record.fields.name === 'string' ? `, ${record.fields.name}` : '';
      return new RecordRow(record, this.schema, `${path}{${record.id}}`, `Line ${position + 1}${title}`, name);
    });
    const items = rows.map((row): Value => ({ type: 'record', row }));
    return { type: 'list', items, of: { list: name, recordType: this.#field(name)?.target }, path };
  }

  #blank(name: string, path: string): BlankValue {
    const label = fieldLabel(this.schema, this.snapshot.type, name).toLowerCase();
    const owner = this.place ? '' : `${ownerWords(this.schema, this.snapshot, this.path)} has `;
    return { type: 'blank', cause: `${owner}no ${label}`, place: this.place, path };
  }

  #prefix(): string {
    return this.place ? `${this.place}: ` : '';
  }
}

function ownerWords(schema: RecordSchema, snapshot: RecordSnapshot, path: string): string {
  const label = schema.types[snapshot.type]?.label.toLowerCase() ?? path.split('.').at(-1)!;
  return `the ${label}`;
}

function dated(iso: string, path: string): Value {
  const day = dayOf(iso);
  return day === undefined ? error(`${sentence(iso)} is not a date.`, { path }) : { type: 'date', day };
}

/** A row over plain values: a group, or one of the roots `company`, `document`, `ask`, `user`. */
export class ValuesRow implements Row {
  constructor(
    readonly path: string,
    readonly id: string,
    readonly title: string,
    readonly values: Readonly<Record<string, Value>>,
    readonly list?: string,
    readonly place?: string,
  ) {}

  has(name: string): boolean {
    return name in this.values;
  }

  label(name: string): string {
    return name.replaceAll('_', ' ');
  }

  value(name: string): Value {
    return this.values[name]!;
  }
}

/** What a list of these fields would hold, by the schema: lets a sum of no lines be a zero of money. */
export function moneyHeld(schema: RecordSchema, type: string | undefined, name: string): MoneyKind | undefined {
  return type && schema.types[type]?.fields[name]?.type === 'money' ? 'price' : undefined;
}
