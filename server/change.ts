import { treeOf } from '../core/record/paths';
import { calledByType, fieldOf, type FieldSchema } from '../core/record/schema';
import type { FieldValue } from '../core/record/snapshot';
import { typedFieldValue, writtenValue } from '../core/template/typed-value';
import { plainText } from '../core/rich/rich-text';
import { recordSchema } from './records/record-schema';
import type { Database } from './db/database';
import { refreshRecord } from './records/record-index';
import { SourceError, type RecordId } from './records/source';
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
  await crm.change({ type, id }, version, { [field]: typedValue(declared, value.trim()) }).catch(async (problem) => {
    throw problem instanceof SourceError && problem.failure === 'conflict'
      ? await bothValues({ type, id }, declared, value.trim())
      : problem;
  });
  await refreshRecord(database, { type, id });
  const subject = { kind: 'record' as const, id: `${type} ${id}`, name: id };
  const said = declared.type === 'rich' ? plainText(value) : value.trim();
  await addToTrail(database, caller, 'field changed', subject, `Set ${declared.label} of ${id} to “${said}”.`);
}

/** What is told where somebody else changed the record meanwhile: what it says now, beside what was typed. @throws SourceError */
async function bothValues(record: RecordId, { name, label }: FieldSchema, typed: string): Promise<Problem> {
  const schema = await recordSchema();
  const { fields } = await crm.read(record, treeOf([[name]], schema, record.type));
  const now = wordsOf(fields[name] ?? null);
  return new Problem(
    409,
    `Somebody else changed the ${calledByType(schema, record.type)}`,
    `${label} is ${now === '' ? 'blank' : `“${now}”`} there now; you typed “${typed}”. Nothing was written. Set it again if yours is right.`,
    { reason: 'conflict', theirs: now },
  );
}

/** A field's value for people, without formats. */
function wordsOf(value: FieldValue): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (value !== null && typeof value === 'object') {
    if ('rich' in value) return plainText(value.rich);
    if ('datetime' in value) return value.datetime;
  }
  return writtenValue(value);
}

/** A field's value from what a person typed. @throws Problem */
function typedValue(field: FieldSchema, typed: string): FieldValue {
  const read = typedFieldValue(field, typed);
  if ('fault' in read) throw new Problem(422, 'This value does not fit', read.fault);
  return read.value;
}
