import type { Contract } from '../core/contract/contract';
import type { QueryOf } from '../core/contract/endpoint';
import { and, asc, desc, eq, inArray, isNotNull, notInArray, sql, type SQL } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { searchableTexts } from '../core/words/search';
import type { Database } from './db/database';
import { documents, events, files, productions, steps } from './db/schema';
import { sha256 } from './assets';
import { containing, sorted, within } from './db/containing';
import { hiddenKinds, onlyTypes, refuseUnseenKind, refuseUnseenRecord } from './people/access';
import type { Caller } from './people/caller';
import { Problem } from './problem';

/** The step that a document is at, or that ended it: it knows why the document waits. */
const latest = alias(steps, 'latest');
const isLatest = and(
  eq(latest.documentId, documents.id),
  inArray(latest.state, ['open', 'held', 'ended']),
  isNotNull(latest.reason),
);

/** How many steps of a document are not done yet. */
const openSteps = sql<number>`(select count(*)::int from ${steps}
  where ${steps.documentId} = ${documents.id} and ${steps.state} in ('open', 'held'))`;

const ROW = {
  id: documents.id,
  kind: documents.kind,
  state: documents.state,
  number: documents.number,
  title: documents.title,
  fileName: documents.fileName,
  recordType: documents.recordType,
  recordId: documents.recordId,
  recordName: documents.recordName,
  accountName: documents.accountName,
  templateId: documents.templateId,
  amount: documents.amount,
  currency: documents.currency,
  issueDate: documents.issueDate,
  reason: sql<string | null>`coalesce(${documents.voided}->>'reason', ${latest.reason})`,
  dueAt: latest.dueAt,
  by: documents.by,
  createdAt: documents.createdAt,
  filedAt: documents.filedAt,
  validity: documents.validity,
  stepsLeft: sql<number>`case when ${documents.state} = 'filed' then ${openSteps} else 0 end`,
  isHeld: sql<boolean>`coalesce(${latest.state} = 'held', false)`,
};

/** What counts in sums: it is filed, neither superseded nor void. */
const counts = sql`${documents.state} = 'filed' and ${documents.validity} = 'current'`;

const SORTS = {
  number: documents.number,
  record: documents.recordName,
  account: documents.accountName,
  amount: documents.amount,
  created: documents.createdAt,
} as const;

/** Documents of kinds and records that a caller may see. */
function seenBy(caller: Caller): SQL | undefined {
  const kinds = hiddenKinds(caller);
  const types = onlyTypes(caller);
  return and(
    kinds.length > 0 ? notInArray(documents.kind, kinds) : undefined,
    types ? inArray(documents.recordType, types) : undefined,
  );
}

/** A page of the register, as far as the caller may see it. */
export async function listDocuments(database: Database, query: QueryOf<Contract['GET /documents']>, caller: Caller) {
  const conditions: (SQL | undefined)[] = [seenBy(caller)];
  if (query.kind) conditions.push(eq(documents.kind, query.kind));
  if (query.state) conditions.push(eq(documents.state, query.state));
  if (query.validity) conditions.push(eq(documents.validity, query.validity));
  if (query.recordType) conditions.push(eq(documents.recordType, query.recordType));
  if (query.recordId) conditions.push(eq(documents.recordId, query.recordId));
  if (query.by) conditions.push(eq(documents.by, query.by));
  conditions.push(...within(documents.createdAt, query));
  if (query.search) conditions.push(containing(query.search, documents.words));
  const where = and(...conditions);
  const column = SORTS[query.sort as keyof typeof SORTS] ?? documents.createdAt;
  const order = sorted(column, query.descending, documents.id);
  // The page is found first: what waits is looked for in its rows alone, and not in those before it.
  const page = database
    .select({ id: documents.id })
    .from(documents)
    .where(where)
    .orderBy(...order)
    .limit(query.top)
    .offset(query.skip)
    .as('page');
  const [rows, sums] = await Promise.all([
    database
      .select(ROW)
      .from(page)
      .innerJoin(documents, eq(documents.id, page.id))
      .leftJoin(latest, isLatest)
      .orderBy(...order),
    // All of them and what is filed, in one walk over what may be many.
    database
      .select({
        kind: documents.kind,
        currency: documents.currency,
        count: sql<number>`count(*)::int`,
        filed: sql<number>`(count(*) filter (where ${counts}))::int`,
        amount: sql<string | null>`sum(${documents.amount}) filter (where ${counts})`,
      })
      .from(documents)
      .where(where)
      .groupBy(documents.kind, documents.currency)
      .orderBy(asc(documents.kind), asc(documents.currency)),
  ]);
  return {
    documents: rows,
    total: sums.reduce((all, { count }) => all + count, 0),
    totals: sums.filter(({ filed }) => filed > 0).map(({ kind, currency, amount }) => ({ kind, currency, amount })),
  };
}

/** The kinds of documents in the register and who filed them, as far as the caller may see them. */
export async function registerFilters(database: Database, caller: Caller) {
  const { kind, by } = documents;
  const rows = await database.selectDistinct({ kind, by }).from(documents).where(seenBy(caller)).orderBy(kind, by);
  return {
    kinds: [...new Set(rows.map((row) => row.kind))],
    people: [...new Set(rows.flatMap((row) => row.by ?? []))],
  };
}

/** What a document is found by. */
export const documentWords = ({
  number,
  title,
  accountName,
  recordName,
  recordId,
  amount,
}: Pick<
  typeof documents.$inferSelect,
  'number' | 'title' | 'accountName' | 'recordName' | 'recordId' | 'amount'
>): string => searchableTexts([number, title, accountName, recordName, recordId, amount]);

/** Gives documents of before the words that they are found by. */
export async function fillDocumentWords(database: Database): Promise<void> {
  const { id, number, title, accountName, recordName, recordId, amount } = documents;
  const columns = { id, number, title, accountName, recordName, recordId, amount };
  const some = () => database.select(columns).from(documents).where(eq(documents.words, '')).limit(1_000);
  for (let rows = await some(); rows.length > 0; rows = await some()) {
    const [ids, words] = [rows.map((row) => row.id), rows.map(documentWords)];
    await database.execute(sql`
      update ${documents} set words = filled.words
      from unnest(${sql.param(ids)}::uuid[], ${sql.param(words)}::text[]) filled (id, words)
      where ${documents.id} = filled.id`);
  }
}

/** The problem of an address that leads to no document. */
export const noDocument = () => new Problem(404, 'No such document', 'The register has no document with this address.');

/** A document with everything that was kept of it. @throws Problem */
export async function readDocument(database: Database, id: string, caller: Caller) {
  const columns = {
    ...ROW,
    composition: documents.composition,
    choices: productions.choices,
    attachmentId: files.attachmentId,
    voiding: documents.voiding,
    voided: documents.voided,
    revises: documents.revises,
    supersededBy: documents.supersededBy,
  };
  const [document] = await database
    .select(columns)
    .from(documents)
    .innerJoin(productions, eq(productions.id, documents.productionId))
    .leftJoin(latest, isLatest)
    .leftJoin(files, and(eq(files.documentId, documents.id), eq(files.format, 'pdf')))
    .where(eq(documents.id, id));
  if (!document) throw noDocument();
  refuseUnseenKind(caller, document.kind);
  const { composition, choices, voiding, voided, revises, supersededBy, ...row } = document;
  refuseUnseenRecord(caller, row.recordType);
  const others = [document.revises, document.supersededBy].flatMap((each) => each ?? []);
  const [history, after, numbered] = await Promise.all([
    database
      .select({ id: events.id, kind: events.kind, sentence: events.sentence, at: events.at, by: events.by })
      .from(events)
      .where(and(eq(events.subjectKind, 'document'), eq(events.subjectId, id)))
      .orderBy(asc(events.at), asc(events.id)),
    database
      .select({
        position: steps.position,
        planStep: steps.planStep,
        state: steps.state,
        attempts: steps.attempts,
        triedAt: steps.triedAt,
        doneAt: steps.doneAt,
        reason: steps.reason,
        dueAt: steps.dueAt,
        letGo: steps.letGo,
      })
      .from(steps)
      .where(and(eq(steps.documentId, id), isNotNull(steps.planStep)))
      .orderBy(asc(steps.position)),
    numbersOf(database, others),
  ]);
  // Before it is set, its steps are known by their places alone.
  const words = new Map(composition?.steps?.map((each) => [each.id, each.words]));
  const withWords = after.map(({ planStep, ...step }, at) => ({
    ...step,
    words: words.get(planStep!) ?? `Step ${at + 1} of its plan.`,
  }));
  const explained = composition && {
    figures: composition.figures,
    bridge: composition.bridge,
    workings: composition.workings,
    findings: composition.findings,
  };
  const other = (of: string | null) => (of === null ? null : { id: of, number: numbered.get(of)! });
  const around = { revises: other(revises), supersededBy: other(supersededBy), voided };
  const { skips = {}, changes = [] } = choices;
  const toBeVoid = voiding !== null && row.state !== 'filed' && row.state !== 'failed';
  return { document: { ...row, ...around, skips, changes, steps: withWords, toBeVoid }, explained, history };
}

/** The numbers of some documents, as they are printed. */
async function numbersOf(database: Database, ids: readonly string[]): Promise<Map<string, string>> {
  if (ids.length === 0) return new Map();
  const { id, number } = documents;
  const rows = await database
    .select({ id, number })
    .from(documents)
    .where(inArray(id, [...ids]));
  return new Map(rows.map((row) => [row.id, row.number]));
}

/** The state of a document, for those who wait for it; undefined for one that the caller may not see. */
export async function documentState(database: Database, id: string, caller: Caller) {
  const [document] = await database
    .select(ROW)
    .from(documents)
    .leftJoin(latest, isLatest)
    .where(and(eq(documents.id, id), seenBy(caller)));
  return document;
}

/** The filed bytes, checked against their hash. @throws Problem */
export async function readFile(
  database: Database,
  id: string,
  caller: Caller,
): Promise<{ bytes: Buffer; fileName: string; sha256: string }> {
  const [row] = await database
    .select({
      bytes: files.bytes,
      sha256: files.sha256,
      fileName: documents.fileName,
      kind: documents.kind,
      recordType: documents.recordType,
    })
    .from(files)
    .innerJoin(documents, eq(documents.id, files.documentId))
    .where(and(eq(files.documentId, id), eq(files.format, 'pdf')));
  if (!row)
    throw new Problem(
      404,
      'No PDF yet',
      'This document has no PDF: it is still being prepared, or it failed before it was set.',
    );
  refuseUnseenKind(caller, row.kind);
  refuseUnseenRecord(caller, row.recordType);
  if (sha256(row.bytes) !== row.sha256)
    throw new Problem(
      500,
      'The PDF is damaged',
      'The stored PDF does not match its hash any more. Take the copy on the record in the CRM, and tell whoever keeps the database.',
    );
  return row;
}

/** The newest documents whose number, title or account has the words, for the find field. */
export async function findDocuments(database: Database, search: string, caller: Caller) {
  const { id, number, title, accountName } = documents;
  return database
    .select({ id, number, title, accountName, state: documents.state })
    .from(documents)
    .where(and(containing(search, documents.words), seenBy(caller)))
    .orderBy(desc(documents.createdAt))
    .limit(6);
}
