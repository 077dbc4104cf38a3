import { fieldOf, type FieldSchema } from '../core/record/schema';
import type { FieldValue } from '../core/record/snapshot';
import { typedFieldValue } from '../core/template/typed-value';
import { plainText } from '../core/rich/rich-text';
import { recordSchema } from './records/record-schema';
import type { Database } from './db/database';
import { refreshRecord } from './records/record-index';
import { crm } from './records/sources';
import { refuseUnchangedRecord } from './people/access';
import type { Caller } from './people/caller';
import { Problem } from './problem';
import { addToTrail } from './trail';
import type { BodyOf } from '../core/contract/endpoint';
import type { Contract } from '../core/contract/contract';

/**
 * Writes one corrected field back onto its record, if nobody else has changed the record since it was read.
 * @throws Problem for a value the field cannot hold, SourceError
 */
export async function changeField(
  database: Database,
  { type, id, version, field, value }: BodyOf<Contract['PATCH /fields']>,
  caller: Caller,
): Promise<void> {
  refuseUnchangedRecord(caller, type);
  const schema = await recordSchema();
  const declared = fieldOf(schema, type, field);
  if (!declared || declared.readonly)
    throw new Problem(
      422,
      'This field cannot be changed here',
      declared
        ? `Change “${declared.label}” in the CRM.`
        : 'The CRM has no such field there, or none that can be changed.',
    );
  await crm.change({ type, id }, version, { [field]: typedValue(declared, value.trim()) });
  await refreshRecord(database, { type, id });
  const subject = { kind: 'record' as const, id: `${type} ${id}`, name: id };
  const said = declared.type === 'rich' ? plainText(value) : value.trim();
  await addToTrail(database, caller, 'field changed', subject, `Set ${declared.label} of ${id} to “${said}”.`);
}

/** A field's value from what a person typed. @throws Problem */
function typedValue(field: FieldSchema, typed: string): FieldValue {
  const read = typedFieldValue(field, typed);
  if ('fault' in read) throw new Problem(422, 'This value does not fit', read.fault);
  return read.value;
}
