import { own } from './own';
import { fieldOf, type FieldSchema, type RecordSchema } from './schema';
import { isRecord, isRecordList, type FieldValue, type RecordSnapshot } from './snapshot';
import { parsePath } from './value-path';

/** A field by a value path, with the record that it is on. */
export interface FieldAt {
  record: RecordSnapshot;
  field: FieldSchema;
  value: FieldValue;
}

/** The field that a value path leads to (`deal.lines{L-4}.unit_price`), within a record; undefined where there is none. */
export function fieldAt(path: string, snapshot: RecordSnapshot, schema: RecordSchema): FieldAt | undefined {
  const parsed = parsePath(path);
  if (!parsed || 'outcome' in parsed || parsed.isChosen) return undefined;
  let record: RecordSnapshot | undefined = snapshot;
  for (const [at, { name, item }] of parsed.steps.entries()) {
    const value: FieldValue = own(record.fields, name) ?? null;
    if (at === parsed.steps.length - 1) {
      const field = fieldOf(schema, record.type, name);
      return field && item === undefined && !field.target ? { record, field, value } : undefined;
    }
    const next: RecordSnapshot | undefined =
      item !== undefined && isRecordList(value)
        ? value.find(({ id }) => id === item)
        : value && isRecord(value)
          ? value
          : undefined;
    if (!next) return undefined;
    record = next;
  }
  return undefined;
}
