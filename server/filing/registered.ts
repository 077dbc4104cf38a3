import { and, asc, eq, lt, sql } from 'drizzle-orm';
import type { RegisteredDocument } from '../../core/formula/functions/register';
import type { Roles, RoleValues } from '../../core/formula/role-values';
import type { Connection } from '../db/database';
import { documents } from '../db/schema';

/** The documents filed for a record before a moment, with their figures by role, oldest first. */
export async function registeredFor(
  connection: Connection,
  recordId: string,
  before: Date,
): Promise<RegisteredDocument[]> {
  // The rest of a kept composition is large, and every proof comes through here.
  const rows = await connection
    .select({ id: documents.id, number: documents.number, kind: documents.kind, issued: documents.issueDate, roles: sql<Roles | RoleValues | null>`${documents.composition} -> 'roles'` })
    .from(documents)
    .where(and(eq(documents.recordId, recordId), eq(documents.state, 'filed'), lt(documents.filedAt, before)))
    .orderBy(asc(documents.filedAt)); // prettier-ignore
  return rows.map(({ roles, ...document }) => ({ ...document, roles: readRoles(roles) }));
}

/** Compositions that were kept before their rows were have the roles of the document alone. */
function readRoles(kept: Roles | RoleValues | null): Roles {
  return kept && 'rows' in kept ? kept : { document: kept ?? {}, rows: [] };
}
