import { and, eq, lt, sql } from 'drizzle-orm';
import { awkwardness } from '../../core/record/awkward';
import { documentTypes, layoutOf, listedFields, partField, partText, LISTED_PARTS } from '../../core/record/layout';
import { treeOf, type PathTree } from '../../core/record/paths';
import { fieldOf, recordTypeOf, type RecordSchema } from '../../core/record/schema';
import { isRecord, type RecordSnapshot } from '../../core/record/snapshot';
import { searchableTexts } from '../../core/words/search';
import type { Connection, Database } from '../db/database';
import { documents, recordIndex, recordReadings } from '../db/schema';
import { recordSchema } from './record-schema';
import { SourceError, type Changes, type RecordId } from './source';
import { CRM, crm } from './sources';

/** The rows of the index for records of a type. */
export const indexOf = (type: string) => and(eq(recordIndex.source, CRM), eq(recordIndex.type, type));
/** How far the records of a type were read. */
export const readingOf = (type: string) => and(eq(recordReadings.source, CRM), eq(recordReadings.type, type));

type Row = typeof recordIndex.$inferInsert;

/** What the index knows of records of a type. */
export function indexedPaths(schema: RecordSchema, type: string): PathTree {
  const parts = LISTED_PARTS.flatMap((part) => partField(schema, type, part) ?? []);
  const columns = listedFields(schema, type).map(({ name }) => [name]);
  const paths = [...parts.map((field) => [field]), ...columns, ...searchedPaths(schema, type)];
  return treeOf(paths, schema, type);
}

/** Further fields that records are found by: of a related record, all its texts. */
function searchedPaths(schema: RecordSchema, type: string): string[][] {
  return layoutOf(schema, type).search.flatMap((name) => {
    const target = fieldOf(schema, type, name)?.target;
    if (target === undefined) return [[name]];
    const texts = Object.values(recordTypeOf(schema, target)?.fields ?? {}).filter((field) => field.type === 'text');
    return texts.map((field) => [name, field.name]);
  });
}

/** Brings the index of all records that documents are made from up to date. @throws SourceError */
export async function refreshIndex(database: Database): Promise<void> {
  const schema = await recordSchema();
  for (const { name } of documentTypes(schema)) await refreshIndexOf(database, name, schema);
}

/**
 * Brings the index of a type up to date with its source: reads what changed since the last time, or everything where that was never
 * done or is not told any more. It may be ended at any line and done again, also by two at once.
 * @throws SourceError
 */
async function refreshIndexOf(database: Database, type: string, schema: RecordSchema): Promise<void> {
  const paths = indexedPaths(schema, type);
  const [known] = await database.select().from(recordReadings).where(readingOf(type));
  let { reading, link } = known ?? { reading: 1, link: null };
  const isWhole = link === null;
  for (let isMore = true; isMore;) {
    const began = new Date();
    const page = await nextChanges(type, paths, link);
    if (!page) {
      // The source tells no more what changed since: everything is read anew.
      reading++;
      link = null;
      continue;
    }
    ({ link, isMore } = page);
    await database.transaction(async (transaction) => {
      await keep(transaction, type, page, reading, schema);
      const now = { reading, link, ...(isMore ? {} : { knownAt: began }) };
      await transaction
        .insert(recordReadings)
        .values({ source: CRM, type, ...now })
        .onConflictDoUpdate({ target: [recordReadings.source, recordReadings.type], set: now });
      if (!isMore) await dropUnseen(transaction, type, reading);
    });
  }
  // Lists and counts are read from indexes alone, once the database knows which rows everybody sees.
  if (isWhole) await database.execute(sql`vacuum (analyze) ${recordIndex}`);
}

/** Has everything of a type read anew the next time; without a type, of all. */
export async function readAnew(connection: Connection, type?: string): Promise<void> {
  await connection
    .update(recordReadings)
    .set({ link: null, reading: sql`${recordReadings.reading} + 1` })
    .where(type === undefined ? eq(recordReadings.source, CRM) : readingOf(type));
}

/** Undefined where the link is too old for its source. @throws SourceError */
async function nextChanges(type: string, paths: PathTree, link: string | null): Promise<Changes | undefined> {
  try {
    return await crm.changes(type, paths, link);
  } catch (problem) {
    if (link !== null && problem instanceof SourceError && problem.status === 410) return undefined;
    throw problem;
  }
}

async function keep(
  transaction: Connection,
  type: string,
  { changed, removed }: Changes,
  reading: number,
  schema: RecordSchema,
): Promise<void> {
  for (const id of removed) await transaction.delete(recordIndex).where(and(indexOf(type), eq(recordIndex.id, id)));
  await keepRows(
    transaction,
    changed.map((record) => rowOf(record, reading, schema)),
  );
}

/** Takes one record over as it is now, after Lumbix changed it itself; one that no list shows is left alone. @throws SourceError */
export async function refreshRecord(connection: Connection, record: RecordId): Promise<void> {
  const schema = await recordSchema();
  const [known] = await connection
    .select({ reading: recordReadings.reading })
    .from(recordReadings)
    .where(readingOf(record.type));
  if (!known) return;
  const now = await crm.read(record, indexedPaths(schema, record.type));
  await keepRows(connection, [rowOf(now, known.reading, schema)]);
}

async function keepRows(connection: Connection, rows: Row[]): Promise<void> {
  if (rows.length === 0) return;
  const newer = Object.fromEntries(
    [
      'name',
      'number',
      'account',
      'stage',
      'owner',
      'amount',
      'currency',
      'day',
      'columns',
      'words',
      'awkward',
      'reading',
    ].map((column) => [column, sql.raw(`excluded.${column}`)]),
  );
  await connection
    .insert(recordIndex)
    .values(rows)
    .onConflictDoUpdate({ target: [recordIndex.source, recordIndex.type, recordIndex.id], set: newer });
  const own = rows.map(({ id }) => id);
  await connection.execute(sql`
    update ${recordIndex} set is_quoted = true
    where source = ${CRM} and type = ${rows[0]!.type} and not is_quoted and id = any(${sql.param(own)}::text[])
      and exists (${quoteOf})`);
}

/** The quotes of a row of the index that are not void. */
const quoteOf = sql`select 1 from ${documents}
  where ${documents.recordType} = ${recordIndex.type} and ${documents.recordId} = ${recordIndex.id}
    and ${documents.kind} = 'quote' and ${documents.state} <> 'failed' and ${documents.validity} <> 'void'`;

async function dropUnseen(transaction: Connection, type: string, reading: number): Promise<void> {
  await transaction.delete(recordIndex).where(and(indexOf(type), lt(recordIndex.reading, reading)));
}

/** Notes whether a record has a quote, after a document of it was begun or became void. */
export async function noteQuoted(transaction: Connection, { type, id }: RecordId): Promise<void> {
  await transaction.execute(sql`
    update ${recordIndex} set is_quoted = exists (${quoteOf})
    where source = ${CRM} and type = ${type} and id = ${id}`);
}

function rowOf(record: RecordSnapshot, reading: number, schema: RecordSchema): Row {
  const { type, id, fields } = record;
  const of = (part: 'amount' | 'day') => fields[partField(schema, type, part) ?? ''] ?? null;
  const amount = of('amount');
  const money = amount !== null && typeof amount === 'object' && 'amount' in amount ? amount : undefined;
  const day = of('day');
  const searched = searchedPaths(schema, type).map((path) => textAt(record, path));
  const row = {
    source: CRM,
    type,
    id,
    name: partText(record, 'name', schema) || id,
    number: partText(record, 'number', schema),
    account: partText(record, 'account', schema),
    stage: partText(record, 'stage', schema),
    owner: partText(record, 'owner', schema),
    amount: money?.amount ?? null,
    currency: money?.currency ?? null,
    day: day !== null && typeof day === 'object' && 'date' in day ? day.date : null,
    columns: Object.fromEntries(listedFields(schema, type).map(({ name }) => [name, fields[name] ?? null])),
    reading,
  };
  const { name, number, account, stage, owner } = row;
  return {
    ...row,
    words: searchableTexts([id, name, number, account, money?.amount, ...searched]),
    awkward: awkwardness({ ...row, texts: [name, account, stage, owner, ...searched] }),
  };
}

function textAt(record: RecordSnapshot, [name, ...rest]: readonly string[]): string | undefined {
  const value = record.fields[name!];
  if (typeof value === 'string') return value;
  return value && isRecord(value) && rest.length > 0 ? textAt(value, rest) : undefined;
}
