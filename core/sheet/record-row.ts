import { dayOf } from '../formula/date';
import { Row, type RowField } from '../formula/row';
import {
  canonical,
  error,
  money,
  percent,
  sentence,
  text,
  type BlankValue,
  type ListValue,
  type MoneyKind,
  type Value,
} from '../formula/value';
import { Decimal } from '../money/decimal';
import { own } from '../record/own';
import { calledByType, fieldLabel, fieldOf, recordTypeOf, type FieldSchema, type RecordSchema } from '../record/schema';
import { isRecord, isRecordList, type FieldValue, type RecordSnapshot } from '../record/snapshot';
import { itemPath, memberPath, namesOf, placeOf } from '../record/value-path';
import type { Source } from './cell';
import { keptWith } from './kept-with-row';

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
      ? keptWith(this).cells.flatMap((cell) => (cell?.value.type === 'error' ? [cell] : []))
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
      changed.push(...row.update(record, placeOf(record, position, field.name, this.source.schema)));
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
    if (raw === undefined)
      return error(`“${this.label(name)}” was not read from the CRM for this document.`, { path: this.#pathOf(name) });
    return this.#typed(name, raw);
  }

  #pathOf(name: string): string {
    return memberPath(this.path, name);
  }

  #typed(name: string, raw: FieldValue): Value {
    if (raw === null) return this.#none(name);
    if (typeof raw === 'string') return raw.trim() === '' ? this.#blank(name) : text(raw);
    if (typeof raw === 'boolean') return { type: 'boolean', value: raw };
    if (isRecordList(raw)) return this.#list(name, raw);
    if ('number' in raw) return this.#decimal(name, raw.number, (value) => ({ type: 'number', value }));
    if ('percent' in raw) return this.#decimal(name, raw.percent, percent);
    if ('amount' in raw) return this.#money(name, raw);
    const path = this.#pathOf(name);
    if (isRecord(raw)) return { type: 'record', row: new RecordRow(raw, this.source, path, this.place) };
    if ('date' in raw) return dated(raw.date, path);
    if ('datetime' in raw) return timed(raw.datetime, this.source.timeZone, path);
    if ('rich' in raw) return raw.rich.trim() === '' ? this.#blank(name) : { type: 'rich', html: raw.rich };
    if ('image' in raw) return { type: 'image', picture: raw.image, path };
    return { type: 'list', items: raw.choices.map(text) };
  }

  #none(name: string): Value {
    const type = this.#field(name)?.type;
    if (type === 'choices') return { type: 'list', items: [] };
    if (type === 'boolean') return { type: 'boolean', value: false };
    return this.#blank(name);
  }

  #money(name: string, { amount, currency }: { amount: string; currency: string | null }): Value {
    if (!currency) return error(`${this.#placed(this.label(name))} has no currency.`, { path: this.#pathOf(name) });
    return this.#decimal(name, amount, (value) => money(value, currency, 'price'));
  }

  #decimal(name: string, source: string, valued: (value: Decimal) => Value): Value {
    const value = Decimal.read(source);
    if (value) return valued(value);
    const shown = source.length > 40 ? `${source.slice(0, 40)}…` : source;
    return error(`${this.#placed(this.label(name))} is “${shown}”, which is no number that can be computed with.`, {
      path: this.#pathOf(name),
    });
  }

  #placed(words: string): string {
    return this.place ? `${this.place}: ${words}` : words;
  }

  #list(name: string, records: readonly RecordSnapshot[]): Value {
    const items = records.map((record, position): Value => ({
      type: 'record',
      row: this.#item(name, record, position),
    }));
    return { type: 'list', items, of: { list: name, recordType: this.#field(name)?.target }, path: this.#pathOf(name) };
  }

  #item(list: string, record: RecordSnapshot, position: number): RecordRow {
    const place = placeOf(record, position, list, this.source.schema);
    return new RecordRow(record, this.source, itemPath(this.#pathOf(list), record.id), place, list);
  }

  #blank(name: string): BlankValue {
    const label = this.label(name).toLowerCase();
    const owner = this.place ? '' : `the ${this.#typeLabel()} has `;
    return { type: 'blank', cause: `${owner}no ${label}`, lacks: label, place: this.place, path: this.#pathOf(name) };
  }

  #typeLabel(): string {
    return calledByType(this.source.schema, this.snapshot.type, namesOf(this.path).split('.').at(-1));
  }
}

function isRow(item: Value | undefined, row: Row): boolean {
  return item?.type === 'record' && item.row === row;
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

/** What a list of these fields would hold, by the schema: lets a sum of no lines be a zero of money. */
export function moneyHeld(schema: RecordSchema, type: string | undefined, name: string): MoneyKind | undefined {
  return fieldOf(schema, type, name)?.type === 'money' ? 'price' : undefined;
}
