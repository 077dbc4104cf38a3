import { and, eq, lt, notExists } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Composition } from '../../core/production/composition';
import type { Choices } from '../../core/production/production';
import type { RecordSnapshot } from '../../core/record/snapshot';
import type { Template } from '../../core/template/template';
import { today } from '../config';
import type { Connection, Database } from '../db/database';
import { documents, productions } from '../db/schema';
import type { Caller } from '../people/caller';
import type { CompositionInput, Press } from '../press/press';
import { Problem } from '../problem';
import { CRM } from '../records/sources';
import {
  compositionInput,
  producibleTemplate,
  readForTemplate,
  templateVersion,
  type PublishedTemplate,
} from './template';

export type Production = typeof productions.$inferSelect;

/** What a document shall be made from, as it is asked for. */
export interface Wanted {
  templateId: string;
  recordId: string;
  choices: Choices;
}

/** A production that was begun: its record is read, and nothing is composed yet. */
export interface Begun {
  id: string;
  published: PublishedTemplate;
  choices: Choices;
  snapshot: RecordSnapshot;
  issueDate: string;
  at: Date;
}

/** Begins a production with the template as it is published now: reads the record with what is used of it. @throws Problem, SourceError */
export async function beginProduction(
  services: { database: Database; press: Press },
  { templateId, recordId, choices }: Wanted,
  caller: Caller,
): Promise<Begun> {
  const published = await producibleTemplate(services.database, templateId, caller);
  refuseUnknownChoices(published, choices);
  const at = new Date();
  const snapshot = await readForTemplate(services, published, recordId);
  return { id: uuidv7(), published, choices, snapshot, issueDate: today(), at };
}

/** Refuses a plan, an edition or a house style that the template does not have. @throws Problem */
function refuseUnknownChoices({ template, pins }: PublishedTemplate, { plan, edition, houseStyle }: Choices): void {
  const chosen = [
    ['plan', plan, template.plans.map(({ id }) => id)],
    ['edition', edition, template.editions.map(({ id }) => id)],
    ['house style', houseStyle, pins.houseStyles.map(({ id }) => id)],
  ] as const;
  for (const [what, id, known] of chosen) {
    if (id === undefined || known.includes(id)) continue;
    throw new Problem(
      422,
      `The template has no such ${what}`,
      `Choose one of these: ${known.join(', ')}. Or choose none: then the template decides.`,
    );
  }
}

/** What a begun production is composed from. */
export const inputOf = (connection: Connection, { published, choices, snapshot, at, issueDate }: Begun) =>
  compositionInput(connection, published, snapshot, { ...circumstances(choices), issueDate }, at);

/** What a kept production is composed from, with its number once it has one. */
export async function productionInput(
  connection: Connection,
  { templateVersionId, choices, snapshot, at, issueDate }: Production,
  number?: { serial: number; text: string },
): Promise<CompositionInput> {
  const published = await templateVersion(connection, templateVersionId);
  return compositionInput(connection, published, snapshot, { ...circumstances(choices), issueDate, number }, at);
}

const circumstances = ({ skips: _skips, ...forced }: Choices) => forced;

/** Keeps a production, so that any process can explain it, print it and file it. */
export async function keepProduction(
  connection: Connection,
  { id, published, choices, snapshot, issueDate, at }: Begun,
  { used, usedDigest }: Pick<Composition, 'used' | 'usedDigest'>,
  caller: Caller,
): Promise<void> {
  await connection.insert(productions).values({
    id,
    templateVersionId: published.versionId,
    recordSource: CRM,
    recordType: snapshot.type,
    recordId: snapshot.id,
    choices,
    issueDate,
    snapshot,
    used,
    usedDigest,
    byId: caller.id,
    at,
  });
}

/** A production of the caller's own. @throws Problem where it is not theirs, or is not kept any more */
export async function ownProduction(connection: Connection, id: string, caller: Caller): Promise<Production> {
  const its = and(eq(productions.id, id), eq(productions.byId, caller.id));
  const [row] = await connection.select().from(productions).where(its);
  if (!row) throw new Problem(404, 'This proof is no longer open', 'Refresh the proof (R), then go on.');
  return row;
}

/** The plan that a production goes by: the chosen one, or the template's first. */
export const planOf = ({ plans }: Template, { plan }: Choices) => plans.find(({ id }) => id === plan) ?? plans[0]!;

const KEPT_FOR = 24 * 3_600_000;

/** Drops productions that nothing was filed from within a day. */
export async function dropOldProductions(connection: Connection, now = Date.now()): Promise<void> {
  const filed = connection
    .select({ id: documents.id })
    .from(documents)
    .where(eq(documents.productionId, productions.id));
  await connection.delete(productions).where(and(lt(productions.at, new Date(now - KEPT_FOR)), notExists(filed)));
}
