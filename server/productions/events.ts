import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Connection } from '../db/database';
import { events } from '../db/schema';
import { DOCUMENT_CHANNEL } from '../jobs/queue';

/** Adds to a document's history, with the name of who did it where a person did. */
export async function addEvent(
  connection: Connection,
  documentId: string,
  kind: string,
  sentence: string,
  by?: string,
): Promise<void> {
  await connection
    .insert(events)
    .values({ id: uuidv7(), subjectKind: 'document', subjectId: documentId, kind, sentence, by });
}

/** Tells everybody who watches a document that something about it changed. */
export async function tellChanged(connection: Connection, documentId: string): Promise<void> {
  await connection.execute(sql`select pg_notify(${DOCUMENT_CHANNEL}, ${documentId})`);
}
