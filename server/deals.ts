import type { Contract } from '../core/contract/contract';
import type { AnswerOf, QueryOf } from '../core/contract/endpoint';
import { and, desc, eq, inArray, ne } from 'drizzle-orm';
import type { RecordSchema } from '../core/record/schema';
import type { RecordSnapshot } from '../core/record/snapshot';
import { treeOf } from '../core/record/paths';
import { listRecords, readRecord, wholeRecord } from './crm/records';
import { crmSchema } from './crm/schema';
import type { Database } from './db/database';
import { seesKind } from './people/access';
import type { Caller } from './people/caller';
import { documents } from './db/schema';

type DealsQuery = QueryOf<Contract['GET /deals']>;
type DealRow = AnswerOf<Contract['GET /deals']>['deals'][number];

/** Fields of the deals list that can be sorted by, with what the CRM is asked to sort by. */
const SORTS: Readonly<Record<string, string>> = {
  name: 'name',
  account: 'account/name',
  stage: 'stage',
  amount: 'amount',
  closes_on: 'closes_on',
};

const LISTED = {
  fields: new Set(['name', 'number', 'stage', 'owner', 'amount', 'currency', 'closes_on']),
  related: new Map([['account', { fields: new Set(['name']), related: new Map() }]]),
};

/** A deal with the values that are asked for by their dotted paths. @throws CrmError */
export async function dealValues(id: string, paths: readonly string[]): Promise<RecordSnapshot> {
  const { records } = await crmSchema();
  return readRecord(
    'Deal',
    id,
    treeOf(
      paths.map((path) => path.split('.')),
      records,
      'Deal',
    ),
  );
}

/** A page of deals from the CRM, each with its paper trail from the register. @throws CrmError */
export async function listDeals(
  database: Database,
  query: DealsQuery,
  caller: Caller,
): Promise<{ deals: DealRow[]; total: number }> {
  const filter = await viewFilter(database, query);
  const direction = query.descending ? ' desc' : '';
  const orderBy = `${SORTS[query.sort] ?? 'name'}${direction},id`;
  const { records, total } = await listRecords('Deal', LISTED, { filter, orderBy, skip: query.skip, top: query.top });
  const trails = await paperTrails(
    database,
    records.map(({ id }) => id),
    caller,
  );
  return { deals: records.map((deal) => ({ deal, paperTrail: trails.get(deal.id) ?? [] })), total };
}

/** How many deals each view of the list has. @throws CrmError */
export async function countDeals(database: Database): Promise<Record<DealsQuery['view'], number>> {
  const views = ['all', 'needs-quote', 'quoted'] as const;
  const totals = await Promise.all(
    views.map(async (view) => {
      const filter = await viewFilter(database, { view });
      return (await listRecords('Deal', { fields: new Set(), related: new Map() }, { filter, skip: 0, top: 0 })).total;
    }),
  );
  return Object.fromEntries(views.map((view, index) => [view, totals[index]!])) as Record<DealsQuery['view'], number>;
}

async function viewFilter(
  database: Database,
  query: Pick<DealsQuery, 'view' | 'search' | 'stage' | 'owner'>,
): Promise<string | undefined> {
  const parts: string[] = [];
  if (query.view !== 'all') {
    const quoted = await quotedDeals(database);
    const list = quoted.length === 0 ? undefined : `id in (${quoted.map(quote).join(',')})`;
    if (query.view === 'quoted') parts.push(list ?? "id eq ''");
    else parts.push("stage in ('Enquiry','Site visit')", ...(list ? [`not (${list})`] : []));
  }
  if (query.stage) parts.push(`stage eq ${quote(query.stage)}`);
  if (query.owner) parts.push(`owner eq ${quote(query.owner)}`);
  const search = query.search?.trim().toLowerCase();
  if (search) {
    const within = ['name', 'number', 'account/name'].map((path) => `contains(tolower(${path}),${quote(search)})`);
    parts.push(`(${within.join(' or ')})`);
  }
  return parts.length === 0 ? undefined : parts.join(' and ');
}

/** An OData text: apostrophes doubled (OData ABNF, SQUOTE-in-string). */
const quote = (text: string) => `'${text.replaceAll("'", "''")}'`;

async function quotedDeals(database: Database): Promise<string[]> {
  const rows = await database
    .selectDistinct({ id: documents.recordId })
    .from(documents)
    .where(and(eq(documents.kind, 'quote'), ne(documents.state, 'failed')));
  return rows.map(({ id }) => id);
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
  const deal = await readRecord('Deal', id, await wholeRecord('Deal', ['account', 'contact', 'lines']));
  return { deal, schema: records };
}

/** Stages and owners to filter by. Owners are those of the deals themselves. */
export async function dealFilters(): Promise<{ stages: string[]; owners: string[] }> {
  const { records } = await crmSchema();
  const stages = records.types.Deal?.fields.stage?.allowed?.map(({ value }) => value) ?? [];
  const { records: deals } = await listRecords(
    'Deal',
    { fields: new Set(['owner']), related: new Map() },
    { skip: 0, top: 500 },
  );
  const owners = [...new Set(deals.map(({ fields }) => fields.owner).filter((owner) => typeof owner === 'string'))];
  return { stages, owners: owners.sort() };
}
