/** Activities: records that tell what was done about another one, and that may be written from outside. */
import { recordTypeOf, type FieldSchema, type RecordSchema } from './schema';

/** How activities are written on records of a type: the relation that holds them, their type, and which field is what. */
export interface ActivityFields {
  relation: string;
  type: string;
  /** A choice: call, note, letter. */
  kind: FieldSchema;
  subject: FieldSchema;
  /** Further words, where they have a field. */
  text?: FieldSchema;
}

/**
 * How activities are written on records of a type, by what their fields are: the first relation to records that may be written, with a
 * kind to choose and a text that they cannot be without. Undefined where there is none.
 */
export function activitiesOf(schema: RecordSchema, type: string): ActivityFields | undefined {
  for (const { name, type: kind, target } of Object.values(recordTypeOf(schema, type)?.fields ?? {})) {
    const related = kind === 'records' ? recordTypeOf(schema, target) : undefined;
    const found = related?.takesNew && partsOf(Object.values(related.fields));
    if (found) return { relation: name, type: related.name, ...found };
  }
  return undefined;
}

function partsOf(all: readonly FieldSchema[]): Omit<ActivityFields, 'relation' | 'type'> | undefined {
  const writable = all.filter(({ readonly }) => !readonly);
  const texts = writable.filter(({ type }) => type === 'text');
  const kind = writable.find(({ type, allowed }) => type === 'choice' && allowed);
  const subject = texts.find(({ nullable }) => !nullable) ?? texts[0];
  const text = texts.find((each) => each !== subject);
  return kind && subject && { kind, subject, ...(text && { text }) };
}
