import { count, eq } from 'drizzle-orm';
import { documentTypes, PART_TYPES, PARTS, type RecordLayout } from '../../core/record/layout';
import { own } from '../../core/record/own';
import { recordTypeOf, type RecordType } from '../../core/record/schema';
import type { Database } from '../db/database';
import { recordIndex, recordLayouts, recordReadings } from '../db/schema';
import type { Caller } from '../people/caller';
import { Problem } from '../problem';
import { addToTrail } from '../trail';
import { keepLayout } from './layouts';
import { readAnew } from './record-index';
import { recordSchema } from './record-schema';
import { CRM } from './sources';

/** How records are shown, as an administrator looks after it. @throws SourceError */
export async function readLayouts(database: Database) {
  const schema = await recordSchema();
  const [chosen, counts, readings] = await Promise.all([
    database.select({ type: recordLayouts.type }).from(recordLayouts).where(eq(recordLayouts.source, CRM)),
    database
      .select({ type: recordIndex.type, count: count() })
      .from(recordIndex)
      .where(eq(recordIndex.source, CRM))
      .groupBy(recordIndex.type),
    database.select().from(recordReadings).where(eq(recordReadings.source, CRM)),
  ]);
  return {
    schema,
    chosen: chosen.map(({ type }) => type).filter((type) => recordTypeOf(schema, type)),
    lists: documentTypes(schema).map(({ name: type }) => ({
      type,
      count: counts.find((each) => each.type === type)?.count ?? 0,
      knownAt: readings.find((each) => each.type === type)?.knownAt ?? null,
    })),
  };
}

/** Changes how records of a type are shown; undefined brings the usual layout back. @throws Problem, SourceError */
export async function changeLayout(
  database: Database,
  name: string,
  layout: RecordLayout | undefined,
  caller: Caller,
): Promise<void> {
  const type = await knownType(name);
  if (layout) refuseUnfitting(type, layout);
  await database.transaction(async (transaction) => {
    await keepLayout(transaction, name, layout, 'person');
    const subject = { kind: 'record type' as const, id: name, name: type.label };
    const sentence = layout
      ? `Changed how records of the type ${type.label} are shown.`
      : `Brought back how records of the type ${type.label} are usually shown.`;
    await addToTrail(transaction, caller, 'layout changed', subject, sentence);
  });
}

/** Has the list of records of a type read anew by the worker. @throws Problem, SourceError */
export async function readListAnew(database: Database, name: string): Promise<void> {
  await knownType(name);
  await readAnew(database, name);
}

async function knownType(name: string): Promise<RecordType> {
  const type = recordTypeOf(await recordSchema(), name);
  if (!type) throw new Problem(404, 'No such records', 'The CRM has no records of this type. Nothing was changed.');
  return type;
}

/** Every field there is, each part by a field that can be it. @throws Problem */
function refuseUnfitting({ label, fields }: RecordType, { parts, groups, columns, search }: RecordLayout): void {
  for (const field of [...groups.flatMap((group) => group.fields), ...columns, ...search, ...Object.values(parts)])
    if (!own(fields, field)) throw unfitting(`${label} has no field “${field}”.`);
  for (const part of PARTS) {
    const field = parts[part];
    const type = field === undefined ? undefined : own(fields, field)!.type;
    if (type && !PART_TYPES[part].includes(type))
      throw unfitting(`“${fields[field!]!.label}” cannot be the ${part}: it is a field of another type.`);
  }
}

const unfitting = (sentence: string) =>
  new Problem(422, 'This layout does not fit the record type', `${sentence} Nothing was changed.`);
