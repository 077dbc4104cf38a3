import { and, eq, inArray, isNotNull, or } from 'drizzle-orm';
import type { DocumentState } from '../../core/contract/documents';
import type { Database } from '../db/database';
import { documents, steps } from '../db/schema';
import type { Queue } from '../jobs/queue';
import { refuseUnfiledKind, refuseUnseenRecord } from '../people/access';
import type { Caller } from '../people/caller';
import { Problem } from '../problem';
import { noDocument } from '../register';
import { addToTrail } from '../trail';
import { addEvent, tellChanged } from './events';

type Services = { database: Database; queue: Queue };

/**
 * Asks for a document that waits to be void. The steps do it: at once where its file was never sent; else when nothing that was
 * sent can still arrive, and only if the record does not hold the file.
 * @throws Problem
 */
export async function voidDocument(
  { database, queue }: Services,
  id: string,
  reason: string,
  caller: Caller,
): Promise<void> {
  const document = await openDocument(database, id, caller);
  await database.transaction(async (transaction) => {
    const voiding = { reason, byId: caller.id, by: caller.name };
    await transaction.update(documents).set({ voiding }).where(eq(documents.id, id));
    await addEvent(transaction, id, 'void asked for', `To be void: ${reason}`, caller.name);
    await addToTrail(
      transaction,
      caller,
      'voided',
      { kind: 'document', id, name: document.number },
      `Asked for ${document.number} to be void: ${reason}`,
    );
    await tryNext(transaction, queue, id);
  });
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
    const gone = { reason, by: caller.name, at: new Date().toISOString() };
    const changed = await transaction
      .update(steps)
      .set({ state: 'let go', letGo: gone, dueAt: null, doneAt: new Date() })
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

/** A document that is still on its way, for somebody who may file such documents. @throws Problem */
async function openDocument(database: Database, id: string, caller: Caller) {
  const document = await knownDocument(database, id, caller);
  if (document.state === 'filed' || document.state === 'failed') throw ended(document.state);
  return document;
}

async function knownDocument(database: Database, id: string, caller: Caller) {
  const [document] = await database.select().from(documents).where(eq(documents.id, id));
  if (!document) throw noDocument();
  refuseUnseenRecord(caller, document.recordType);
  refuseUnfiledKind(caller, document.kind);
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
    .set({ state: 'open', dueAt: new Date() })
    .where(
      and(
        eq(steps.documentId, documentId),
        or(eq(steps.state, 'held'), and(eq(steps.state, 'open'), isNotNull(steps.dueAt))),
      ),
    );
  await queue.enqueue(transaction, documentId);
  await tellChanged(transaction, documentId);
}
