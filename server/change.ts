import { formatMoment } from '../core/formula/date';
import { CHANGE_PARTS, partField, partText } from '../core/record/layout';
import { treeOf } from '../core/record/paths';
import { calledByType, fieldOf, type FieldSchema, type RecordSchema } from '../core/record/schema';
import type { FieldValue, RecordSnapshot } from '../core/record/snapshot';
import { typedFieldValue, writtenValue } from '../core/template/typed-value';
import { plainText } from '../core/rich/rich-text';
import { INTERFACE_LOCALE } from '../core/words/interface';
import { config } from './config';
import { recordSchema } from './records/record-schema';
import type { Database } from './db/database';
import { refreshRecord } from './records/record-index';
import { SourceError, type RecordId } from './records/source';
import { crm } from './records/sources';
import { refuseUnchangedRecord } from './people/access';
import type { Caller } from './people/caller';
import { Problem } from './problem';
import { addToTrail, lastDoer } from './trail';
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
      ? await bothValues(database, { type, id }, declared, value.trim())
      : problem;
  });
  await refreshRecord(database, { type, id });
  const said = declared.type === 'rich' ? plainText(value) : value.trim();
  await addToTrail(
    database,
    caller,
    'field changed',
    subjectOf({ type, id }),
    `Set ${declared.label} of ${id} to “${said}”.`,
  );
}

/**
 * What is told where somebody else changed the record meanwhile: what it says now, beside what was typed, and as far as that is known,
 * who changed it and when.
 * @throws SourceError
 */
async function bothValues(
  database: Database,
  record: RecordId,
  { name, label }: FieldSchema,
  typed: string,
): Promise<Problem> {
  const schema = await recordSchema();
  const parts = CHANGE_PARTS.flatMap((part) => partField(schema, record.type, part) ?? []);
  const paths = [name, ...parts].map((field) => [field]);
  const theirs = await crm.read(record, treeOf(paths, schema, record.type));
  const now = wordsOf(theirs.fields[name] ?? null);
  const { by, at } = await lastChange(database, theirs, schema);
  const when = at && `, ${formatMoment({ at: at.getTime(), zone: config.timeZone }, INTERFACE_LOCALE)}`;
  return new Problem(
    409,
    `${by || 'Somebody else'} changed the ${calledByType(schema, record.type)}${when ?? ''}`,
    `${label} is ${now === '' ? 'blank' : `“${now}”`} there now; you typed “${typed}”. Nothing was written. Set it again if yours is right.`,
    { reason: 'conflict', theirs: now },
  );
}

/** How far the clocks of the CRM and of Lumbix may be apart, in milliseconds. */
const CLOCKS = 5_000;

/** Who changed a record last, and when, as its fields say; of a change that went by Lumbix, the person. */
async function lastChange(
  database: Database,
  record: RecordSnapshot,
  schema: RecordSchema,
): Promise<{ by: string; at?: Date }> {
  const by = partText(record, 'changedBy', schema);
  const value = record.fields[partField(schema, record.type, 'changedAt') ?? ''] ?? null;
  if (value === null || typeof value !== 'object' || !('datetime' in value)) return { by };
  const at = new Date(value.datetime);
  const ours = await lastDoer(database, 'field changed', subjectOf(record));
  const isOurs = ours && Math.abs(ours.at.getTime() - at.getTime()) < CLOCKS;
  return { by: isOurs ? ours.name : by, at };
}

const subjectOf = ({ type, id }: RecordId) => ({ kind: 'record' as const, id: `${type} ${id}`, name: id });

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
