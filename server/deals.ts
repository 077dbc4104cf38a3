import type { Contract } from '../core/contract/contract';
import type { AnswerOf, QueryOf } from '../core/contract/endpoint';
import { and, count, desc, eq, inArray, ne, type SQL } from 'drizzle-orm';
import type { RecordSchema } from '../core/record/schema';
import type { RecordSnapshot } from '../core/record/snapshot';
import { treeOf } from '../core/record/paths';
import { readRecord, wholeRecord } from './crm/records';
import { crmSchema } from './crm/schema';
import type { Database } from './db/database';
import { seesKind } from './people/access';
import type { Caller } from './people/caller';
import { containing, sorted } from './db/containing';
import { documents, recordIndex, recordReadings } from './db/schema';
import { DEAL, indexOf, readingOf } from './records/record-index';

type DealsQuery = QueryOf<Contract['GET /deals']>;
type DealRow = AnswerOf<Contract['GET /deals']>['deals'][number];

/** What the list can be sorted by. */
const SORTS = {
  name: recordIndex.name,
  account: recordIndex.account,
  stage: recordIndex.stage,
  amount: recordIndex.amount,
  closes_on: recordIndex.day,
} as const;

/** Stages whose deals need a quote. */
const QUOTABLE = ['Enquiry', 'Site visit'];

/** A deal with the values that are asked for by their dotted paths. @throws CrmError */
export async function dealValues(id: string, paths: readonly string[]): Promise<RecordSnapshot> {
  const { records } = await crmSchema();
  return readRecord(
    DEAL,
    id,
    treeOf(
      paths.map((path) => path.split('.')),
      records,
      DEAL,
    ),
  );
}

/** A page of deals, each with its paper trail from the register. */
export async function listDeals(database: Database, query: DealsQuery, caller: Caller) {
  const where = and(...conditionsOf(query));
  const column = SORTS[query.sort as keyof typeof SORTS] ?? recordIndex.name;
  const [rows, [counted], state] = await Promise.all([
    database
      .select(ROW)
      .from(recordIndex)
      .where(where)
      .orderBy(...sorted(column, query.descending, recordIndex.id))
      .limit(query.top)
      .offset(query.skip),
    database.select({ total: count() }).from(recordIndex).where(where),
    indexState(database),
  ]);
  const trails = await paperTrails(
    database,
    rows.map(({ id }) => id),
    caller,
  );
  return {
    deals: rows.map((deal) => ({ ...deal, paperTrail: trails.get(deal.id) ?? [] })),
    total: counted!.total,
    ...state,
  };
}

const ROW = {
  id: recordIndex.id,
  name: recordIndex.name,
  account: recordIndex.account,
  stage: recordIndex.stage,
  amount: recordIndex.amount,
  currency: recordIndex.currency,
  day: recordIndex.day,
};

/** Up to when the list knows the CRM's records; null before they were read for the first time. */
async function indexState(database: Database): Promise<{ knownAt: Date | null }> {
  const [reading] = await database.select({ knownAt: recordReadings.knownAt }).from(recordReadings).where(readingOf());
  return { knownAt: reading?.knownAt ?? null };
}

const inView = (view: DealsQuery['view']): SQL | undefined => {
  if (view === 'quoted') return eq(recordIndex.isQuoted, true);
  if (view === 'needs-quote') return and(eq(recordIndex.isQuoted, false), inArray(recordIndex.stage, QUOTABLE));
  return undefined;
};

function conditionsOf({ view, stage, owner, search }: DealsQuery): (SQL | undefined)[] {
  const words = search?.trim();
  return [
    indexOf(),
    inView(view),
    stage ? eq(recordIndex.stage, stage) : undefined,
    owner ? eq(recordIndex.owner, owner) : undefined,
    words ? containing(words, [recordIndex.name, recordIndex.number, recordIndex.account]) : undefined,
  ];
}

/** The first deals whose name, number or account has the words. */
export async function findDeals(database: Database, search: string, most: number) {
  const { id, name, number, account } = recordIndex;
  return database
    .select({ id, name, account })
    .from(recordIndex)
    .where(and(indexOf(), containing(search, [name, number, account])))
    .orderBy(name, id)
    .limit(most);
}

/** How many deals each view of the list has. */
export async function countDeals(database: Database): Promise<Record<DealsQuery['view'], number>> {
  const rows = await database
    .select({ isQuoted: recordIndex.isQuoted, stage: recordIndex.stage, count: count() })
    .from(recordIndex)
    .where(indexOf())
    .groupBy(recordIndex.isQuoted, recordIndex.stage);
  const sum = (holds: (row: (typeof rows)[number]) => boolean) =>
    rows.filter(holds).reduce((all, row) => all + row.count, 0);
  return {
    all: sum(() => true),
    quoted: sum(({ isQuoted }) => isQuoted),
    'needs-quote': sum(({ isQuoted, stage }) => !isQuoted && QUOTABLE.includes(stage)),
  };
}

async function paperTrails(
  database: Database,
  dealIds: string[],
  caller: Caller,
): Promise<Map<string, DealRow['paperTrail']>> {
  const trails = new Map<string, DealRow['paperTrail']>();
  if (dealIds.length === 0) return trails;
  const rows = await database
    .selectDistinctOn([documents.recordId, documents.kind], {
      recordId: documents.recordId,
      id: documents.id,
      kind: documents.kind,
      state: documents.state,
      number: documents.number,
    })
    .from(documents)
    .where(inArray(documents.recordId, dealIds))
    .orderBy(documents.recordId, documents.kind, desc(documents.createdAt));
  for (const { recordId, ...entry } of rows.filter(({ kind }) => seesKind(caller, kind)))
    trails.set(recordId, [...(trails.get(recordId) ?? []), entry]);
  return trails;
}

/** A deal with all its fields, lines and related records, and what the fields mean. @throws CrmError */
export async function wholeDeal(id: string): Promise<{ deal: RecordSnapshot; schema: RecordSchema }> {
  const { records } = await crmSchema();
  const deal = await readRecord(DEAL, id, await wholeRecord(DEAL, ['account', 'contact', 'lines']));
  return { deal, schema: records };
}

/** Stages and owners to filter by. Owners are those of the deals themselves. */
export async function dealFilters(database: Database): Promise<{ stages: string[]; owners: string[] }> {
  const [{ records }, owners] = await Promise.all([
    crmSchema(),
    database
      .selectDistinct({ owner: recordIndex.owner })
      .from(recordIndex)
      .where(and(indexOf(), ne(recordIndex.owner, ''))),
  ]);
  const stages = records.types[DEAL]?.fields.stage?.allowed?.map(({ value }) => value) ?? [];
  return { stages, owners: owners.map(({ owner }) => owner).sort() };
}
