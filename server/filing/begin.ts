import { refuseUnfiledKind, refuseUnseenRecord } from '../people/access';
import type { Caller } from '../people/caller';
import { addToTrail } from '../trail';
import type { BodyOf } from '../../core/contract/endpoint';
import type { Contract } from '../../core/contract/contract';
import { v7 as uuidv7 } from 'uuid';
import type { Composition } from '../../core/production/composition';
import { mayFile, type Finding } from '../../core/production/findings/finding';
import { describePath } from '../../core/record/value-path';
import { isRecord, type RecordSnapshot } from '../../core/record/snapshot';
import { usedChanges, type UsedValues } from '../../core/record/used';
import { today } from '../config';
import { crmSchema } from '../crm/schema';
import type { Database } from '../db/database';
import { documents } from '../db/schema';
import type { Queue } from '../jobs/queue';
import type { Press } from '../press/press';
import { Problem } from '../problem';
import { addEvent } from './events';
import { takeNumber } from './series';
import { currentTemplate, compositionInput, readForTemplate } from './template';

export type FilingRequest = BodyOf<Contract['POST /documents']>;

/** One used value that changed since the proof, for people. */
export interface ChangedValue {
  what: string;
  before: string | null;
  after: string | null;
}

/**
 * Begins a filing: reads the record again, refuses if anything the proof used has changed or if a finding stops it,
 * then writes the document with its number and its job in one transaction. Gives the document's id.
 * @throws Problem
 */
export async function beginFiling(
  services: { database: Database; queue: Queue; press: Press },
  request: FilingRequest,
  caller: Caller,
): Promise<{ id: string; number: string }> {
  const { database, queue, press } = services;
  const published = await currentTemplate(database, request.templateId);
  if (published.versionId !== request.templateVersionId)
    throw new Problem(
      409,
      'The template has a newer version',
      'Look at the proof again: the template was published anew since.',
      { reason: 'template' },
    );
  if (request.issueDate !== today())
    throw new Problem(
      409,
      'The day has changed',
      'The proof was made on another day. Look at it again before filing.',
      { reason: 'day' },
    );

  const { template } = published;
  refuseUnfiledKind(caller, template.kind);
  refuseUnseenRecord(caller, template.record.type);
  const snapshot = await readForTemplate(services, published, request.recordId);
  const composition = await press.compose(
    await compositionInput(database, published, snapshot, { edition: request.edition }),
  );
  await refuseChanged(request.used, composition, snapshot);
  refuseFindings(composition.findings, request.skipped);

  const id = uuidv7();
  const plan = template.plans[0]!;
  const total = composition.meanings.document['gross-total'];
  const number = await database.transaction(async (transaction) => {
    const taken = await takeNumber(transaction, plan.series, request.issueDate);
    await transaction.insert(documents).values({
      id,
      kind: template.kind,
      state: 'preparing',
      number: taken.text,
      seriesId: taken.seriesId,
      period: taken.period,
      serial: taken.serial,
      recordType: snapshot.type,
      recordId: snapshot.id,
      recordName: nameOf(snapshot) ?? snapshot.id,
      accountName: accountName(snapshot),
      title: composition.title,
      fileName: composition.fileName,
      templateId: template.id,
      templateVersionId: published.versionId,
      edition: composition.edition,
      plan: plan.id,
      amount: total?.value ?? null,
      currency: composition.currency,
      issueDate: request.issueDate,
      snapshot,
      used: composition.used,
      usedDigest: composition.usedDigest,
      skipped: request.skipped,
    });
    await addEvent(transaction, id, 'number taken', `Number ${taken.text} was taken.`, caller.name);
    const skips = Object.values(request.skipped).filter((reason) => reason.trim());
    await addToTrail(
      transaction,
      caller,
      'filed',
      { kind: 'document', id, name: taken.text },
      `Filed ${template.kind} ${taken.text} for ${nameOf(snapshot) ?? snapshot.id}${skips.length > 0 ? `, with ${skips.length === 1 ? 'a finding' : `${skips.length} findings`} skipped` : ''}.`,
      skips.length > 0 ? { skipped: request.skipped } : undefined,
    );
    await queue.enqueueFiling(transaction, id);
    return taken.text;
  });
  return { id, number };
}

async function refuseChanged(proofed: UsedValues, composition: Composition, snapshot: RecordSnapshot): Promise<void> {
  const changes = usedChanges(proofed, composition.used);
  if (changes.length === 0) return;
  const { records } = await crmSchema();
  const changed = changes.map(({ path, before, after }): ChangedValue => ({
    what: describePath(path, snapshot, records),
    before,
    after,
  }));
  throw new Problem(
    409,
    'The deal changed since this proof',
    'Nothing was filed. Look at what changed, then file the new proof.',
    {
      reason: 'changed',
      changes: changed,
    },
  );
}

function refuseFindings(findings: readonly Finding[], skipped: Record<string, string>): void {
  if (!mayFile(findings)) {
    const first = findings.find(({ severity }) => severity === 'stops')!;
    throw new Problem(422, 'This document cannot be filed', first.sentence, { reason: 'findings', findings });
  }
  const open = findings.find(({ severity, id }) => severity === 'warns' && !skipped[id]?.trim());
  if (open)
    throw new Problem(
      422,
      'A finding is still open',
      `${open.title}: ${open.sentence} Mend it, or skip it with a reason.`,
      { reason: 'findings', findings },
    );
}

function nameOf(snapshot: RecordSnapshot): string | undefined {
  return typeof snapshot.fields.name === 'string' ? snapshot.fields.name : undefined;
}

function accountName(snapshot: RecordSnapshot): string {
  const { account } = snapshot.fields;
  return (account && isRecord(account) && nameOf(account)) || '';
}
