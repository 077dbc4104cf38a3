import { and, eq, isNotNull } from 'drizzle-orm';
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

/** Has a document that waits tried again at once. @throws Problem */
export async function tryAgain({ database, queue }: Services, id: string, caller: Caller): Promise<void> {
  await openDocument(database, id, caller);
  await database.transaction((transaction) => tryNext(transaction, queue, id));
}

/** A document that is still on its way, for somebody who may file such documents. @throws Problem */
async function openDocument(database: Database, id: string, caller: Caller) {
  const [document] = await database.select().from(documents).where(eq(documents.id, id));
  if (!document) throw noDocument();
  refuseUnseenRecord(caller, document.recordType);
  refuseUnfiledKind(caller, document.kind);
  if (document.state === 'filed' || document.state === 'failed')
    throw new Problem(
      409,
      document.state === 'filed' ? 'The document is filed' : 'The document is void already',
      'Nothing was changed.',
      { reason: 'ended' },
    );
  return document;
}

async function tryNext(transaction: Parameters<Queue['enqueue']>[0], queue: Queue, documentId: string): Promise<void> {
  // A step that is under way has no time set, and goes its own way.
  await transaction
    .update(steps)
    .set({ dueAt: new Date() })
    .where(and(eq(steps.documentId, documentId), eq(steps.state, 'open'), isNotNull(steps.dueAt)));
  await queue.enqueue(transaction, documentId);
  await tellChanged(transaction, documentId);
}
