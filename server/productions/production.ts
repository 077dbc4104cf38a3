import { and, desc, eq, lt, not, notExists, or } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Composition } from '../../core/production/composition';
import type { Choices, Revising } from '../../core/production/production';
import { saysSame, type RecordSnapshot } from '../../core/record/snapshot';
import type { Template } from '../../core/template/template';
import { withTried, type Tried } from '../../core/template/what-if';
import { now } from '../clock';
import type { Connection, Database } from '../db/database';
import { documents, productions } from '../db/schema';
import { refuseUnseenKind, refuseUnseenRecord, seesKind } from '../people/access';
import type { Caller } from '../people/caller';
import type { CompositionInput, Press } from '../press/press';
import { Problem } from '../problem';
import { schemaFor } from '../records/record-list';
import { recordSchema } from '../records/record-schema';
import type { RecordId } from '../records/source';
import { CRM } from '../records/sources';
import { issueDatesOf, mayBeIssued, notIssued, type IssueDates } from './issue-dates';
import { chosen, type WantedChoices } from './choices';
import { revisedBy } from './revisions';
import {
  compositionInput,
  producibleTemplate,
  readForTemplate,
  templateVersion,
  type PublishedTemplate,
} from './template';

export type Production = typeof productions.$inferSelect;

/** What a document shall be made from, as it is asked for. */
export interface Wanted extends WantedChoices {
  templateId: string;
  recordId: string;
  /** The production that is gone on with, and the revision of it that was seen. */
  of?: { id: string; revision?: number };
  /** The production that was looked at before this one. */
  since?: string;
  /** What the caller wrote to the record since, by value paths. */
  written?: readonly Tried[];
}

/** A production that was begun: its record is read, and nothing is composed yet. */
export interface Begun {
  id: string;
  published: PublishedTemplate;
  choices: Choices;
  snapshot: RecordSnapshot;
  /** The record as it was when the document was looked at first, where it was otherwise. */
  earlier: RecordSnapshot | undefined;
  issueDate: string;
  issueDates: IssueDates;
  at: Date;
  /** What it is the next revision of, though it may take a number of its own all the same. */
  revises: Revising | undefined;
  /** The revision of the production that this makes, and whether the production is there already. */
  revision: number;
  isKnown: boolean;
}

/** Begins a production with the template as it is published now: reads the record with what is used of it. @throws Problem, SourceError */
export async function beginProduction(
  services: { database: Database; press: Press },
  wanted: Wanted,
  caller: Caller,
): Promise<Begun> {
  const { database } = services;
  const published = await producibleTemplate(database, wanted.templateId, caller);
  const known = wanted.of && (await goneOnWith(database, wanted, caller));
  const { template } = published;
  const all = await chosen(database, wanted, known?.choices ?? {}, published, caller);
  const { series } = planOf(template, all);
  const at = now();
  const record = { type: template.record.type, id: wanted.recordId };
  const [snapshot, seen, revises, issueDates] = await Promise.all([
    readForTemplate(services, published, wanted.recordId, all),
    seenFirst(database, wanted, known, caller),
    revisedBy(database, template, series, record),
    issueDatesOf(database, series),
  ]);
  const choices = withIssueDate(all, issueDates, wanted.choices.issueDate);
  const id = known?.id ?? uuidv7();
  return {
    id,
    published,
    choices,
    snapshot,
    earlier: seen && !saysSame(seen, snapshot) ? seen : undefined,
    issueDate: choices.issueDate ?? issueDates.until,
    issueDates,
    at,
    revises,
    revision: (known?.revision ?? -1) + 1,
    isKnown: known !== undefined,
  };
}

/**
 * Choices with the day of issue that holds. One that was chosen on another day and is not possible any more gives way to today.
 * @throws Problem where a day is asked for that is not possible
 */
function withIssueDate(choices: Choices, dates: IssueDates, asked: string | undefined): Choices {
  const { issueDate, ...others } = choices;
  if (issueDate === undefined || issueDate === dates.until) return others;
  if (mayBeIssued(issueDate, dates)) return choices;
  if (asked !== undefined) throw notIssued(dates);
  return others;
}

/**
 * The record as it was when the document was looked at first: in the production that is gone on with, or in the one before this. What
 * the caller wrote to the record since is as if it had been there.
 */
async function seenFirst(
  connection: Connection,
  { templateId, recordId, since, written = [] }: Wanted,
  known: Production | undefined,
  caller: Caller,
): Promise<RecordSnapshot | undefined> {
  const before = known ?? (since === undefined ? undefined : await findProduction(connection, since, caller));
  if (!before || before.recordId !== recordId) return undefined;
  const { template } = await templateVersion(connection, before.templateVersionId);
  if (template.id !== templateId) return undefined;
  const seen = before.earlier ?? before.snapshot;
  return written.length === 0 ? seen : withTried(seen, written, await recordSchema()).record;
}

/** The production that somebody goes on with. @throws Problem where it is another one’s, of something else, or was changed meanwhile */
async function goneOnWith(
  connection: Connection,
  { of, templateId, recordId }: Wanted,
  caller: Caller,
): Promise<Production> {
  const { id, revision } = of!;
  const row = await openProduction(connection, id, caller);
  const { template } = await templateVersion(connection, row.templateVersionId);
  if (template.id !== templateId || row.recordId !== recordId) throw notOpen();
  if (revision !== undefined && revision !== row.revision) throw changedMeanwhile();
  return row;
}

/** What is told where somebody else was faster. */
export const changedMeanwhile = () =>
  new Problem(
    409,
    'Somebody else went on with this document',
    'Nothing of yours was changed or filed. Look at it as it is now, then go on.',
    { reason: 'revised' },
  );

/** What a begun production is composed from. */
export const inputOf = (
  connection: Connection,
  { published, choices, snapshot, earlier, at, issueDate, revises }: Begun,
) =>
  compositionInput(
    connection,
    withClauses(published, choices),
    snapshot,
    { ...circumstances(choices), earlier, issueDate, number: numberToBe({ choices, revises }) },
    at,
  );

/** The number that a document has before it is filed: that of the one it is the next revision of. */
const numberToBe = ({ choices, revises }: { choices: Choices; revises: Revising | null | undefined }) =>
  choices.asNew ? undefined : revises?.next;

/** What a kept production is composed from, with its number once it has one. */
export async function productionInput(
  connection: Connection,
  { templateVersionId, choices, snapshot, earlier, at, issueDate, revises }: Production,
  number: { serial: number; text: string } | undefined = numberToBe({ choices, revises }),
): Promise<CompositionInput> {
  const published = withClauses(await templateVersion(connection, templateVersionId), choices);
  const around = { ...circumstances(choices), earlier: earlier ?? undefined, issueDate, number };
  return compositionInput(connection, published, snapshot, around, at);
}

const circumstances = ({ skips: _skips, clauses: _clauses, issueDate: _date, ...forced }: Choices) => forced;

/** What a version holds on to, and the clauses that were put in for one document. */
const withClauses = (
  { template, pins }: Pick<PublishedTemplate, 'template' | 'pins'>,
  { clauses: own = [] }: Choices,
) => ({
  template,
  pins: own.length === 0 ? pins : { ...pins, clauses: [...pins.clauses, ...own] },
});

/** Keeps a production, so that any process can explain it, print it and file it. */
export async function keepProduction(
  connection: Connection,
  { id, published, choices, snapshot, earlier, issueDate, at, revises, revision, isKnown }: Begun,
  { used, usedDigest }: Pick<Composition, 'used' | 'usedDigest'>,
  caller: Caller,
): Promise<void> {
  const inHand = (choices.changes ?? []).length > 0;
  const now = {
    templateVersionId: published.versionId,
    choices,
    issueDate,
    snapshot,
    earlier: earlier ?? null,
    used,
    usedDigest,
    at,
    revises: revises ?? null,
    revision,
    inHand,
  };
  if (!isKnown) {
    const { type, id: recordId } = snapshot;
    await connection
      .insert(productions)
      .values({ id, recordSource: CRM, recordType: type, recordId, byId: caller.id, ...now });
    return;
  }
  const its = and(eq(productions.id, id), eq(productions.revision, revision - 1), notExists(filedFrom(connection)));
  const changed = await connection.update(productions).set(now).where(its).returning({ id: productions.id });
  if (changed.length === 0) throw changedMeanwhile();
}

/** A production of the caller's own, or one in hand that they may go on with. @throws Problem where it is neither, or is not kept any more */
export async function openProduction(connection: Connection, id: string, caller: Caller): Promise<Production> {
  const row = await findProduction(connection, id, caller);
  if (!row) throw notOpen();
  if (row.byId !== caller.id) {
    refuseUnseenRecord(caller, row.recordType);
    refuseUnseenKind(caller, (await templateVersion(connection, row.templateVersionId)).template.kind);
  }
  return row;
}

/** A production that the caller may have seen: their own, or one in hand. */
async function findProduction(connection: Connection, id: string, caller: Caller): Promise<Production | undefined> {
  const [row] = await connection.select().from(productions).where(eq(productions.id, id));
  return row && (row.byId === caller.id || row.inHand) ? row : undefined;
}

const notOpen = () => new Problem(404, 'This proof is no longer open', 'Refresh the proof (R), then go on.');

/** A document in hand: begun, changed, and not filed yet. */
export interface InHand {
  id: string;
  template: { id: string; name: string; kind: string };
  changes: number;
  /** Who changed something last, and when. */
  by: string;
  at: string;
}

/** The documents of a record that are in hand, the latest first. @throws Problem */
export async function documentsInHand(connection: Connection, record: RecordId, caller: Caller): Promise<InHand[]> {
  await schemaFor(record.type, caller);
  const rows = await connection
    .select({ id: productions.id, versionId: productions.templateVersionId, choices: productions.choices })
    .from(productions)
    .where(and(productions.inHand, eq(productions.recordType, record.type), eq(productions.recordId, record.id)))
    .orderBy(desc(productions.at));
  const all = await Promise.all(
    rows.map(async ({ id, versionId, choices: { changes = [] } }) => {
      const { template } = await templateVersion(connection, versionId);
      const last = changes.reduce((one, other) => (one.at > other.at ? one : other));
      const { id: templateId, name, kind } = template;
      return { id, template: { id: templateId, name, kind }, changes: changes.length, by: last.by, at: last.at };
    }),
  );
  return all.filter(({ template }) => seesKind(caller, template.kind));
}

/** The plan that a production goes by: the chosen one, or the template's first. */
export const planOf = ({ plans }: Template, { plan }: Choices) => plans.find(({ id }) => id === plan) ?? plans[0]!;

const KEPT_FOR = 24 * 3_600_000;

const IN_HAND_FOR = 90 * KEPT_FOR;

/** Drops productions that nothing was filed from within a day; those in hand stay for three months after they were last looked at. */
export async function dropOldProductions(connection: Connection, now = Date.now()): Promise<void> {
  const isOld = or(
    and(not(productions.inHand), lt(productions.at, new Date(now - KEPT_FOR))),
    lt(productions.at, new Date(now - IN_HAND_FOR)),
  );
  await connection.delete(productions).where(and(isOld, notExists(filedFrom(connection))));
}

const filedFrom = (connection: Connection) =>
  connection.select({ id: documents.id }).from(documents).where(eq(documents.productionId, productions.id));
