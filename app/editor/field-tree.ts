import { relationsOf } from '#core/record/paths';
import { LINES, recordTypeOf, type FieldSchema, type RecordSchema } from '#core/record/schema';
import { isRecord, isRecordList, type FieldValue, type RecordSnapshot } from '#core/record/snapshot';
import type { Template } from '#core/template/template';

/** A field that can be brought onto the sheet. */
export interface FieldEntry {
  /** Its path from the record, with points. */
  path: string;
  label: string;
  field: FieldSchema;
  value: FieldValue | undefined;
  /** What brings it in: a formula. */
  formula: string;
}

/** Fields that belong together: a record's own, those of one next to it, or those of each item of a list. */
export interface FieldGroup {
  title: string;
  /** The list, where the fields are of each of its items. */
  list?: string;
  count?: number;
  fields: FieldEntry[];
}

/** Every field of a record and of those next to it, with the values of one; of a list those of its first item. */
export function fieldTree(
  schema: RecordSchema,
  { type, root }: Template['record'],
  snapshot: RecordSnapshot | undefined,
): FieldGroup[] {
  const own = recordTypeOf(schema, type);
  if (!own) return [];
  const groups: FieldGroup[] = [
    { title: own.label, fields: entries(schema, type, '', snapshot, (name) => `${root}.${name}`) },
  ];
  for (const { name, label, target, type: kind } of relationsOf(schema, type)) {
    const value = snapshot?.fields[name];
    if (kind === 'record') {
      const inside = value && isRecord(value) ? value : undefined;
      groups.push({
        title: label,
        fields: entries(schema, target!, `${name}.`, inside, (field) => `${root}.${name}.${field}`),
      });
      continue;
    }
    const items = value && isRecordList(value) ? value : [];
    const list = name === LINES ? LINES : `${root}.${name}`;
    const first = entries(schema, target!, `${name}.`, items[0], (field) => field);
    groups.push({
      title: label,
      list,
      count: items.length,
      fields: [...first, ...leadingOn(schema, target!, name, items[0])],
    });
  }
  return groups;
}

/** What an item leads to: a line's product. */
function leadingOn(schema: RecordSchema, type: string, list: string, item: RecordSnapshot | undefined): FieldEntry[] {
  return relationsOf(schema, type)
    .filter(({ type: kind }) => kind === 'record')
    .flatMap(({ name, label, target }) => {
      const value = item?.fields[name];
      const inside = value && isRecord(value) ? value : undefined;
      return entries(schema, target!, `${list}.${name}.`, inside, (field) => `${name}.${field}`).map((entry) => ({
        ...entry,
        label: `${label}: ${entry.label.toLowerCase()}`,
      }));
    });
}

const entries = (
  schema: RecordSchema,
  type: string,
  place: string,
  snapshot: RecordSnapshot | undefined,
  formulaOf: (name: string) => string,
): FieldEntry[] =>
  Object.values(recordTypeOf(schema, type)?.fields ?? {})
    .filter(({ target }) => !target)
    .map((field) => ({
      path: `${place}${field.name}`,
      label: field.label,
      field,
      value: snapshot?.fields[field.name],
      formula: formulaOf(field.name),
    }));

/** What brings a field in where no item of its list is in scope: a sum of numbers, what the first one has otherwise. */
export const outsideOf = (list: string, { field, formula }: FieldEntry): string =>
  ['number', 'money'].includes(field.type) ? `SUM(${list}.${formula})` : `FIRST(${list}).${formula}`;
