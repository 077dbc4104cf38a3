import { calledByType, recordTypeOf, type RecordSchema } from '#core/record/schema';
import type { Template } from '#core/template/template';

/** The fields of the record type that is called something: of the record by its root, of others by their label in a sentence. */
export function fieldsOfCalled(
  schema: RecordSchema,
  { type, root }: Template['record'],
  owner: string,
): { value: string; label: string }[] {
  const named = owner === root ? type : Object.keys(schema.types).find((each) => calledByType(schema, each) === owner);
  return Object.values(recordTypeOf(schema, named)?.fields ?? {}).map(({ name, label }) => ({
    value: name,
    label: `${label} (${name})`,
  }));
}
