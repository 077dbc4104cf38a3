import { and, asc, eq, lt, sql } from 'drizzle-orm';
import type { RegisteredDocument } from '../../core/formula/functions/register';
import type { Connection } from '../db/database';
import { documents } from '../db/schema';
import type { RecordId } from '../records/source';

/** The documents filed for a record before a moment, with their figures by meaning, oldest first. */
export async function registeredFor(
  connection: Connection,
  { type, id }: RecordId,
  before: Date,
): Promise<RegisteredDocument[]> {
  // The rest of a kept composition is large, and every proof comes through here.
  const rows = await connection
    .select({
      id: documents.id,
      number: documents.number,
      kind: documents.kind,
      issued: documents.issueDate,
      meanings: sql<
        RegisteredDocument['meanings'] | null
      >`coalesce(${documents.composition} -> 'meanings', ${documents.composition} -> 'roles')`,
    })
    .from(documents)
    .where(
      and(
        eq(documents.recordType, type),
        eq(documents.recordId, id),
        eq(documents.state, 'filed'),
        eq(documents.validity, 'current'),
        lt(documents.filedAt, before),
      ),
    )
    .orderBy(asc(documents.filedAt));
  return rows.map(({ meanings, ...document }) => ({ ...document, meanings: meanings ?? {} }));
}
