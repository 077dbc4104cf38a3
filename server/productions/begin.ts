import { and, eq } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Contract } from '../../core/contract/contract';
import type { BodyOf } from '../../core/contract/endpoint';
import { mayFile } from '../../core/production/findings/finding';
import { calledRecord, partText } from '../../core/record/layout';
import { calledByType } from '../../core/record/schema';
import type { RecordSnapshot } from '../../core/record/snapshot';
import { usedChanges, type UsedValues } from '../../core/record/used';
import { usedWords } from '../../core/production/used-words';
import { describePath } from '../../core/record/value-path';
import { now } from '../clock';
import { today } from '../config';
import { recordSchema } from '../records/record-schema';
import type { Connection, Database } from '../db/database';
import { documents, productions } from '../db/schema';
import type { Queue } from '../jobs/queue';
import { refuseUnfiledKind, refuseUnseenRecord } from '../people/access';
import type { Caller } from '../people/caller';
import { isOutsize } from '../press/outsize';
import type { Composed, Press } from '../press/press';
import { Problem } from '../problem';
import { noteQuoted } from '../records/record-index';
import { documentWords } from '../register';
import { addToTrail } from '../trail';
import { openSteps } from './engine';
import { addEvent, tellChanged } from './events';
import { noteIssued } from './issue-dates';
import { takeNumber } from './numbers';
import { holdRevision } from './revisions';
import { changedMeanwhile, openProduction, planOf, productionInput, type Production } from './production';
import { currentTemplate, readForTemplate, templateVersion } from './template';
import { whatStops } from './steps/step';

export type FilingRequest = BodyOf<Contract['POST /documents']>;
type FilingServices = { database: Database; queue: Queue; press: Press };

/** One used value that changed since the proof, for people. */
export interface ChangedValue {
  what: string;
  before: string | null;
  after: string | null;
}

/** A filing that was accepted. */
export interface Accepted {
  id: string;
  number: string;
}

/**
 * Begins to file a production: reads the record again, refuses if anything that the proof used has changed or if a finding stops
 * it, then writes the document with its number, its steps and its job in one transaction. `key` names the filing: the same key
 * of the same caller is the same document, however often it comes.
 * @throws Problem
 */
export async function beginFiling(
  services: FilingServices,
  request: FilingRequest,
  key: string,
  caller: Caller,
): Promise<Accepted> {
  const { database } = services;
  const before = await filedBefore(database, request, key, caller);
  if (before) return before;
  try {
    return await begin(services, request, key, caller);
  } catch (problem) {
    // The same request came twice at once, and the other one was faster.
    const winner = await filedBefore(database, request, key, caller);
    if (winner) return winner;
    throw problem;
  }
}

/** What was filed under a key, or from a production, before. @throws Problem where that is another filing */
async function filedBefore(
  connection: Connection,
  { production, skips }: FilingRequest,
  key: string,
  caller: Caller,
): Promise<Accepted | undefined> {
  const columns = {
    id: documents.id,
    number: documents.number,
    of: documents.productionId,
    choices: productions.choices,
  };
  const [named] = await connection
    .select(columns)
    .from(documents)
    .innerJoin(productions, eq(productions.id, documents.productionId))
    .where(and(eq(documents.byId, caller.id), eq(documents.key, key)));
  if (named) {
    const { id, number, of, choices } = named;
    if (of === production && sameTexts(skips, choices.skips ?? {})) return { id, number };
    throw new Problem(
      422,
      'The key was used before',
      `Another filing has this key: it became ${number}. Send a new key with each new filing. Nothing was filed.`,
      { reason: 'key' },
    );
  }
  const [filed] = await connection
    .select({ number: documents.number })
    .from(documents)
    .where(and(eq(documents.productionId, production), eq(documents.byId, caller.id)));
  if (!filed) return undefined;
  throw new Problem(
    409,
    'This proof was filed before',
    `It became ${filed.number}. To file another document, look at the proof again.`,
    { reason: 'filed' },
  );
}

function sameTexts(one: Readonly<Record<string, string>>, other: Readonly<Record<string, string>>): boolean {
  const names = Object.keys(one);
  return names.length === Object.keys(other).length && names.every((name) => one[name] === other[name]);
}

async function begin(services: FilingServices, request: FilingRequest, key: string, caller: Caller): Promise<Accepted> {
  const { database, queue, press } = services;
  const proofed = await openProduction(database, request.production, caller);
  if (request.revision !== undefined && request.revision !== proofed.revision) throw changedMeanwhile();
  const published = await publishedStill(database, proofed);
  const { template } = published;
  const isToday = proofed.choices.issueDate === undefined;
  if (isToday && proofed.issueDate !== today())
    throw new Problem(
      409,
      'The day has changed',
      'The proof was made on another day. Look at it again before filing.',
      { reason: 'day' },
    );
  refuseUnfiledKind(caller, template.kind);
  refuseUnseenRecord(caller, template.record.type);

  const at = now();
  const snapshot = await readForTemplate({ database, press }, published, proofed.recordId, proofed.choices);
  const composition = await press.compose(await productionInput(database, { ...proofed, snapshot, at }));
  await refuseChanged(proofed.used, composition, snapshot);
  refuseFindings(composition, request.skips);

  const { skips } = request;
  const { used, usedDigest, edition, plan } = composition;
  const choices = { ...proofed.choices, edition, plan, skips };
  const id = uuidv7();
  const total = composition.meanings.document['gross-total'];
  const schema = await recordSchema();
  const recordName = calledRecord(snapshot, schema);
  return database.transaction(async (transaction) => {
    const { series } = planOf(template, choices);
    const held = await holdRevision(transaction, template, series, snapshot, {
      revises: proofed.revises,
      asNew: choices.asNew ?? false,
    });
    const number = held?.number ?? (await takeNumber(transaction, series, proofed.issueDate, caller.name));
    const text = held?.text ?? number.text;
    await noteIssued(transaction, series, proofed.issueDate);
    await transaction
      .update(productions)
      .set({ snapshot, at, used, usedDigest, choices, inHand: false })
      .where(eq(productions.id, proofed.id));
    const found = {
      number: text,
      recordId: snapshot.id,
      recordName,
      accountName: partText(snapshot, 'account', schema),
      title: composition.title,
      amount: total?.value ?? null,
    };
    await transaction.insert(documents).values({
      ...found,
      words: documentWords(found),
      id,
      productionId: proofed.id,
      numberId: number.id,
      ...(held && { revises: held.revises, revision: held.revision }),
      kind: template.kind,
      state: 'preparing',
      recordType: snapshot.type,
      fileName: composition.fileName,
      templateId: template.id,
      currency: composition.currency,
      issueDate: proofed.issueDate,
      byId: caller.id,
      by: caller.name,
      key,
      createdAt: at,
    });
    await noteQuoted(transaction, snapshot);
    await openSteps(transaction, id, text, composition.steps);
    const told = held ? `Begun as ${text}, the next revision.` : `Number ${text} was taken.`;
    await addEvent(transaction, id, 'number taken', told, caller.name);
    await addFiledToTrail(transaction, caller, { id, number: text, kind: template.kind, recordName, skips });
    await queue.enqueue(transaction, id, { isLong: isOutsize(snapshot) });
    await tellChanged(transaction, id);
    return { id, number: text };
  });
}

/** The version that a proof was made from, if it is the one that documents are produced from still. @throws Problem */
async function publishedStill(connection: Connection, { templateVersionId }: Production) {
  const { template } = await templateVersion(connection, templateVersionId);
  const current = await currentTemplate(connection, template.id);
  if (current.versionId === templateVersionId) return current;
  throw new Problem(
    409,
    'The template has a newer version',
    'Look at the proof again: the template was published anew since.',
    { reason: 'template' },
  );
}

async function addFiledToTrail(
  transaction: Connection,
  caller: Caller,
  filed: { id: string; number: string; kind: string; recordName: string; skips: Readonly<Record<string, string>> },
): Promise<void> {
  const count = Object.values(filed.skips).filter((reason) => reason.trim()).length;
  const skipped = count === 0 ? '' : `, with ${count === 1 ? 'a finding' : `${count} findings`} skipped`;
  await addToTrail(
    transaction,
    caller,
    'filed',
    { kind: 'document', id: filed.id, name: filed.number },
    `Filed ${filed.kind} ${filed.number} for ${filed.recordName}${skipped}.`,
    count > 0 ? { skips: filed.skips } : undefined,
  );
}

async function refuseChanged(proofed: UsedValues, composition: Composed, snapshot: RecordSnapshot): Promise<void> {
  const changes = usedChanges(proofed, composition.used);
  if (changes.length === 0) return;
  const schema = await recordSchema();
  const words = (path: string, text: string | null) => text && usedWords(path, text, snapshot, schema);
  const changed = changes.map(({ path, before, after }): ChangedValue => ({
    what: describePath(path, snapshot, schema),
    before: words(path, before),
    after: words(path, after),
  }));
  throw new Problem(
    409,
    `The ${calledByType(schema, snapshot.type)} changed since this proof`,
    'Nothing was filed. Look at what changed, then file the new proof.',
    {
      reason: 'changed',
      changes: changed,
    },
  );
}

function refuseFindings(composition: Composed, skips: Readonly<Record<string, string>>): void {
  const { findings } = composition;
  if (!mayFile(findings))
    throw new Problem(422, 'This document cannot be filed', whatStops(composition), { reason: 'findings', findings });
  const open = findings.find(({ severity, id }) => severity === 'warns' && !skips[id]?.trim());
  if (open)
    throw new Problem(
      422,
      'An issue is still open',
      `${open.title}: ${open.sentence} Resolve it, or skip it with a reason.`,
      { reason: 'findings', findings },
    );
}
