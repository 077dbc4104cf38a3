import { and, eq, lt, sql } from 'drizzle-orm';
import { isRecord, type FieldValue, type RecordSnapshot } from '../../core/record/snapshot';
import type { PathTree } from '../../core/record/paths';
import { changesOf, readRecord, type Changes } from '../crm/records';
import { CrmError } from '../crm/client';
import type { Connection, Database } from '../db/database';
import { documents, recordIndex, recordReadings } from '../db/schema';

/** Where records come from that are not put in here. */
const CRM_SOURCE = 'crm';
/** The type of the records that documents are made from. */
export const DEAL = 'Deal';

/** What the index knows of a record. */
export const INDEXED: PathTree = {
  fields: new Set(['name', 'number', 'stage', 'owner', 'amount', 'currency', 'closes_on']),
  related: new Map([['account', { fields: new Set(['name']), related: new Map() }]]),
};

/** The rows of the index for records of a type. */
export const indexOf = (type = DEAL) => and(eq(recordIndex.source, CRM_SOURCE), eq(recordIndex.type, type));
/** How far the records of a type were read. */
export const readingOf = (type = DEAL) => and(eq(recordReadings.source, CRM_SOURCE), eq(recordReadings.type, type));

type Row = typeof recordIndex.$inferInsert;

/**
 * Brings the index up to date with its source: reads what changed since the last time, or everything where that was never done or is
 * not told any more. It may be ended at any line and done again, also by two at once.
 * @throws CrmError
 */
export async function refreshIndex(database: Database, type = DEAL): Promise<void> {
  const [known] = await database.select().from(recordReadings).where(readingOf(type));
  let { reading, link, wholeAt } = known ?? { reading: 1, link: null, wholeAt: null };
  for (let isMore = true; isMore;) {
    const began = new Date();
    const page = await nextChanges(type, link);
    if (!page) {
      // The source tells no more what changed since: everything is read anew.
      reading++;
      link = null;
      wholeAt = null;
      continue;
    }
    ({ link, isMore } = page);
    if (!isMore) wholeAt ??= began;
    await database.transaction(async (transaction) => {
      await keep(transaction, type, page, reading);
      const now = { reading, link, wholeAt, ...(isMore ? {} : { knownAt: began }) };
      await transaction
        .insert(recordReadings)
        .values({ source: CRM_SOURCE, type, ...now })
        .onConflictDoUpdate({ target: [recordReadings.source, recordReadings.type], set: now });
      if (!isMore) await dropUnseen(transaction, type, reading);
    });
  }
}

/** Has everything read anew the next time. */
export async function readAnew(connection: Connection, type = DEAL): Promise<void> {
  await connection
    .update(recordReadings)
    .set({ link: null, wholeAt: null, reading: sql`${recordReadings.reading} + 1` })
    .where(readingOf(type));
}

/** Undefined where the link is too old for its source. @throws CrmError */
async function nextChanges(type: string, link: string | null): Promise<Changes | undefined> {
  try {
    return await changesOf(type, INDEXED, link);
  } catch (problem) {
    if (link !== null && problem instanceof CrmError && problem.status === 410) return undefined;
    throw problem;
  }
}

async function keep(transaction: Connection, type: string, { changed, removed }: Changes, reading: number) {
  for (const id of removed) await transaction.delete(recordIndex).where(and(indexOf(type), eq(recordIndex.id, id)));
  await keepRows(
    transaction,
    changed.map((record) => rowOf(record, reading)),
  );
}

/** Takes one record over as it is now, after Lumbix changed it itself. @throws CrmError */
export async function refreshRecord(connection: Connection, type: string, id: string): Promise<void> {
  if (type !== DEAL) return;
  const [known] = await connection
    .select({ reading: recordReadings.reading })
    .from(recordReadings)
    .where(readingOf(type));
  if (known) await keepRows(connection, [rowOf(await readRecord(type, id, INDEXED), known.reading)]);
}

async function keepRows(connection: Connection, rows: Row[]): Promise<void> {
  if (rows.length === 0) return;
  const newer = Object.fromEntries(
    ['name', 'number', 'account', 'stage', 'owner', 'amount', 'currency', 'day', 'reading'].map((column) => [
      column,
      sql.raw(`excluded.${column}`),
    ]),
  );
  await connection
    .insert(recordIndex)
    .values(rows)
    .onConflictDoUpdate({ target: [recordIndex.source, recordIndex.type, recordIndex.id], set: newer });
  const own = rows.map(({ id }) => id);
  await connection.execute(sql`
    update ${recordIndex} set is_quoted = true
    where source = ${CRM_SOURCE} and type = ${DEAL} and not is_quoted and id = any(${sql.param(own)}::text[]) and exists (select 1 from ${documents}
      where ${documents.recordId} = ${recordIndex.id} and ${documents.kind} = 'quote' and ${documents.state} <> 'failed')`);
}

async function dropUnseen(transaction: Connection, type: string, reading: number): Promise<void> {
  await transaction.delete(recordIndex).where(and(indexOf(type), lt(recordIndex.reading, reading)));
}

/** Notes whether a record has a quote, after a document of it was begun or became void. */
export async function noteQuoted(transaction: Connection, recordId: string): Promise<void> {
  await transaction.execute(sql`
    update ${recordIndex} set is_quoted = exists (select 1 from ${documents}
      where ${documents.recordId} = ${recordId} and ${documents.kind} = 'quote' and ${documents.state} <> 'failed')
    where source = ${CRM_SOURCE} and type = ${DEAL} and id = ${recordId}`);
}

function rowOf({ type, id, fields }: RecordSnapshot, reading: number): Row {
  const { amount, account } = fields;
  const money = amount !== null && typeof amount === 'object' && 'amount' in amount ? amount : undefined;
  const day = fields.closes_on;
  return {
    source: CRM_SOURCE,
    type,
    id,
    name: textOf(fields.name) || id,
    number: textOf(fields.number),
    account: account && isRecord(account) ? textOf(account.fields.name) : '',
    stage: textOf(fields.stage),
    owner: textOf(fields.owner),
    amount: money?.amount ?? null,
    currency: money?.currency ?? null,
    day: day !== null && typeof day === 'object' && 'date' in day ? day.date : null,
    reading,
  };
}

const textOf = (value: FieldValue | undefined): string => (typeof value === 'string' ? value : '');
