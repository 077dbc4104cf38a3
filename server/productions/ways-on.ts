import { and, eq, inArray, isNotNull, or } from 'drizzle-orm';
import type { DocumentState } from '../../core/contract/documents';
import { keptMeanings } from '../../core/formula/meanings';
import { now } from '../clock';
import type { Connection, Database } from '../db/database';
import { documents, steps } from '../db/schema';
import type { Queue } from '../jobs/queue';
import { refuseUnfiledKind, refuseUnseenKind, refuseUnseenRecord } from '../people/access';
import type { Caller } from '../people/caller';
import { Problem } from '../problem';
import { noDocument } from '../register';
import { addToTrail } from '../trail';
import { noteQuoted } from '../records/record-index';
import { addEvent, tellChanged } from './events';
import { registeredFor } from './registered';

type Services = { database: Database; queue: Queue };

/**
 * Has a document be void: at once where it is filed. Of one that waits the steps do it: at once where its file was never sent; else when
 * nothing that was sent can still arrive, and only if the record does not hold the file.
 * @throws Problem
 */
export async function voidDocument(
  { database, queue }: Services,
  id: string,
  reason: string,
  caller: Caller,
): Promise<void> {
  const document = await seenDocument(database, id, caller);
  if (document.state === 'failed') throw ended('failed');
  const subject = { kind: 'document' as const, id, name: document.number };
  if (document.state === 'filed') return voidFiled(database, document, reason, caller);
  await database.transaction(async (transaction) => {
    const voiding = { reason, byId: caller.id, by: caller.name };
    await transaction.update(documents).set({ voiding }).where(eq(documents.id, id));
    await addEvent(transaction, id, 'void asked for', `To be void: ${reason}`, caller.name);
    const sentence = `Asked for ${document.number} to be void: ${reason}`;
    await addToTrail(transaction, caller, 'voided', subject, sentence);
    await tryNext(transaction, queue, id);
  });
}

/** A filed document counts no more. It stays readable, with its number, and its file stays on the record. @throws Problem */
async function voidFiled(
  database: Database,
  { id, number, recordType, recordId, kind }: typeof documents.$inferSelect,
  reason: string,
  caller: Caller,
): Promise<void> {
  await database.transaction(async (transaction) => {
    const note = kind === 'invoice' ? await creditOf(transaction, { number, recordType, recordId }) : undefined;
    if (note)
      throw new Problem(
        409,
        'The invoice was credited',
        `${note} takes it off already. Have that one void first. Nothing was changed.`,
        { reason: 'credited' },
      );
    const voided = { reason, byId: caller.id, by: caller.name, at: now().toISOString() };
    const changed = await transaction
      .update(documents)
      .set({ validity: 'void', voided })
      .where(and(eq(documents.id, id), eq(documents.validity, 'current')))
      .returning({ id: documents.id });
    if (changed.length === 0)
      throw new Problem(
        409,
        'The document does not count any more',
        'It is superseded or void already. Nothing was changed.',
        { reason: 'ended' },
      );
    await noteQuoted(transaction, { type: recordType, id: recordId });
    await addEvent(transaction, id, 'voided', `Void: ${reason}`, caller.name);
    const subject = { kind: 'document' as const, id, name: number };
    await addToTrail(transaction, caller, 'voided', subject, `Voided ${number} after it was filed: ${reason}`);
    await tellChanged(transaction, id);
  });
}

/** The number of a credit note that counts and takes something off an invoice. */
async function creditOf(
  transaction: Connection,
  { number, recordType, recordId }: { number: string; recordType: string; recordId: string },
): Promise<string | undefined> {
  const notes = await registeredFor(transaction, { type: recordType, id: recordId }, now());
  return notes.find(
    ({ kind, meanings }) =>
      kind === 'credit note' &&
      keptMeanings(meanings).rows.some(({ values }) => values['preceding-invoice'] === number),
  )?.number;
}

/** Has a document that waits, or a step that is held, tried again at once. @throws Problem */
export async function tryAgain({ database, queue }: Services, id: string, caller: Caller): Promise<void> {
  await unfinishedDocument(database, id, caller);
  await database.transaction((transaction) => tryNext(transaction, queue, id));
}

/** Lets a step after filing go undone: those after it go on. @throws Problem where it is done, or under way */
export async function letGo(
  { database, queue }: Services,
  id: string,
  { position, reason }: { position: number; reason: string },
  caller: Caller,
): Promise<void> {
  const document = await unfinishedDocument(database, id, caller);
  await database.transaction(async (transaction) => {
    const its = and(
      eq(steps.documentId, id),
      eq(steps.position, position),
      isNotNull(steps.planStep),
      or(eq(steps.state, 'held'), and(eq(steps.state, 'open'), or(isNotNull(steps.dueAt), eq(steps.attempts, 0)))),
    );
    const gone = { reason, by: caller.name, at: now().toISOString() };
    const changed = await transaction
      .update(steps)
      .set({ state: 'let go', letGo: gone, dueAt: null, doneAt: now() })
      .where(its)
      .returning({ position: steps.position });
    if (changed.length === 0)
      throw new Problem(409, 'This step cannot be let go', 'It is done already, or under way. Look at it again.', {
        reason: 'ended',
      });
    await addEvent(transaction, id, 'let go', `A step after filing was let go: ${reason}`, caller.name);
    const subject = { kind: 'document' as const, id, name: document.number };
    const sentence = `Let a step after the filing of ${document.number} go undone: ${reason}`;
    await addToTrail(transaction, caller, 'step let go', subject, sentence);
    await tryNext(transaction, queue, id);
  });
}

/** A document that is on its way, or whose steps after filing are. @throws Problem */
async function unfinishedDocument(database: Database, id: string, caller: Caller) {
  const document = await knownDocument(database, id, caller);
  const left = await database
    .select({ position: steps.position })
    .from(steps)
    .where(and(eq(steps.documentId, id), inArray(steps.state, ['open', 'held'])))
    .limit(1);
  if (document.state !== 'failed' && left.length > 0) return document;
  throw ended(document.state);
}

/** A document for somebody who may file such documents. @throws Problem */
async function knownDocument(database: Database, id: string, caller: Caller) {
  const document = await seenDocument(database, id, caller);
  refuseUnfiledKind(caller, document.kind);
  return document;
}

/** A document for somebody who may see it: whoever voids need not file such documents themselves. @throws Problem */
async function seenDocument(database: Database, id: string, caller: Caller) {
  const [document] = await database.select().from(documents).where(eq(documents.id, id));
  if (!document) throw noDocument();
  refuseUnseenRecord(caller, document.recordType);
  refuseUnseenKind(caller, document.kind);
  return document;
}

const ended = (state: DocumentState): Problem =>
  new Problem(
    409,
    state === 'failed' ? 'The document is void already' : 'The document is filed',
    'Nothing was changed.',
    {
      reason: 'ended',
    },
  );

async function tryNext(transaction: Parameters<Queue['enqueue']>[0], queue: Queue, documentId: string): Promise<void> {
  // A step that is under way has no time set, and goes its own way.
  await transaction
    .update(steps)
    .set({ state: 'open', dueAt: now() })
    .where(
      and(
        eq(steps.documentId, documentId),
        or(eq(steps.state, 'held'), and(eq(steps.state, 'open'), isNotNull(steps.dueAt))),
      ),
    );
  await queue.enqueue(transaction, documentId);
  await tellChanged(transaction, documentId);
}
