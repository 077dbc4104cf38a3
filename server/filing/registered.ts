import { and, asc, eq, lt } from 'drizzle-orm';
import type { RegisteredDocument } from '../../core/formula/functions/function';
import type { Connection } from '../db/database';
import { documents } from '../db/schema';

/** The documents filed for a record before a moment, with their figures by role, oldest first. */
export async function registeredFor(
  connection: Connection,
  recordId: string,
  before: Date,
): Promise<RegisteredDocument[]> {
  const rows = await connection
    .select({ id: documents.id, number: documents.number, kind: documents.kind, issued: documents.issueDate, composition: documents.composition })
    .from(documents)
    .where(and(eq(documents.recordId, recordId), eq(documents.state, 'filed'), lt(documents.filedAt, before)))
    .orderBy(asc(documents.filedAt)); // prettier-ignore
  return rows.map(({ composition, ...document }) => ({ ...document, roles: composition?.roles ?? {} }));
}
