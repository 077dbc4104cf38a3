import { and, asc, count, desc, eq, isNull, max, sql } from 'drizzle-orm';
import { clausePlaces } from '../core/template/where-used';
import { DOCUMENT_KINDS } from '../core/template/document-kinds';
import { today } from './config';
import { recordSchema } from './records/record-schema';
import type { Database } from './db/database';
import { clauses, documents, templates, templateVersions } from './db/schema';
import { fieldsGone } from './missing-fields';
import { Problem } from './problem';
import { seenTemplate, templateVersion } from './productions/template';
import { seesKind } from './people/access';
import { addToTrail } from './trail';
import type { Caller } from './people/caller';

/** Every template that a caller may see, with how it is used, in the course of a sale: quotes before invoices. */
export async function listTemplates(database: Database, caller: Caller) {
  const course: readonly string[] = DOCUMENT_KINDS;
  const versions = await database
    .select({
      id: templates.id,
      name: templates.name,
      kind: templates.kind,
      recordType: templates.recordType,
      archivedAt: templates.archivedAt,
      version: templateVersions.version,
      versionId: templateVersions.id,
      editions: sql<number>`jsonb_array_length(${templateVersions.body} -> 'editions')`,
    })
    .from(templates)
    .innerJoin(templateVersions, eq(templates.currentVersion, templateVersions.id))
    .orderBy(asc(templates.name));
  const uses = await database
    .select({ id: documents.templateId, count: count(), last: max(documents.filedAt) })
    .from(documents)
    .where(eq(documents.state, 'filed'))
    .groupBy(documents.templateId);
  const used = new Map(uses.map((each) => [each.id, each]));
  const seen = versions.filter(({ kind }) => seesKind(caller, kind));
  const gone = await fieldsGone(
    database,
    seen.filter(({ archivedAt }) => archivedAt === null).map(({ versionId }) => versionId),
  );
  const all = seen.map((each) => ({
    ...each,
    fieldsGone: gone.get(each.versionId) ?? [],
    documents: used.get(each.id)?.count ?? 0,
    lastUsed: used.get(each.id)?.last ?? null,
  }));
  return all.sort((one, other) => course.indexOf(one.kind) - course.indexOf(other.kind));
}

/** The clauses, by their names. */
export const listClauses = (database: Database) =>
  database.select({ id: clauses.id, name: clauses.name }).from(clauses).orderBy(asc(clauses.name));

/** The templates that a caller may see and that put a clause in, as they are published; archived ones use nothing. */
export async function clauseUses(database: Database, clause: string, caller: Caller) {
  const current = await database
    .select({ id: templates.id, name: templates.name, kind: templates.kind, versionId: templates.currentVersion })
    .from(templates)
    .where(isNull(templates.archivedAt))
    .orderBy(asc(templates.name));
  const found: { id: string; name: string; places: number }[] = [];
  for (const { id, name, kind, versionId } of current) {
    if (!seesKind(caller, kind)) continue;
    const { template } = await templateVersion(database, versionId);
    const places = clausePlaces(template, clause).length;
    if (places > 0) found.push({ id, name, places });
  }
  return found;
}

/** A template with what its formulas are checked against. @throws Problem, SourceError */
export async function templateWithSchema(database: Database, templateId: string, caller: Caller) {
  const { template, pins, version, versionId } = await seenTemplate(database, templateId, caller);
  const schema = await recordSchema();
  return { template, version, versionId, schema, pins, issueDate: today() };
}

/** Puts a template away, or brings it back. What was filed from it stays. @throws Problem */
export async function archiveTemplate(database: Database, templateId: string, archived: boolean, caller: Caller) {
  const { template } = await seenTemplate(database, templateId, caller);
  const its = eq(templates.id, templateId);
  return database.transaction(async (transaction) => {
    const [before] = await transaction.select().from(templates).where(its).for('update');
    if ((before!.archivedAt !== null) === archived) return { archivedAt: before!.archivedAt };
    const archivedAt = archived ? new Date() : null;
    await transaction.update(templates).set({ archivedAt }).where(its);
    const subject = { kind: 'template', id: templateId, name: template.name } as const;
    const sentence = archived ? `Archived “${template.name}”.` : `Brought “${template.name}” back from the archive.`;
    await addToTrail(transaction, caller, archived ? 'archived' : 'brought back', subject, sentence);
    return { archivedAt };
  });
}

/** The versions of a template, the newest first. @throws Problem */
export async function listVersions(database: Database, templateId: string, caller: Caller) {
  const { versionId: current } = await seenTemplate(database, templateId, caller);
  const rows = await database
    .select({
      versionId: templateVersions.id,
      version: templateVersions.version,
      publishedAt: templateVersions.publishedAt,
      publishedBy: templateVersions.publishedBy,
      note: templateVersions.note,
      stops: templateVersions.stops,
    })
    .from(templateVersions)
    .where(eq(templateVersions.templateId, templateId))
    .orderBy(desc(templateVersions.version));
  return rows.map(({ stops, ...row }) => ({
    ...row,
    reason: stops?.reason ?? null,
    isCurrent: row.versionId === current,
  }));
}

/** A template as it was in one of its versions. @throws Problem */
export async function readVersion(database: Database, templateId: string, versionId: string, caller: Caller) {
  await seenTemplate(database, templateId, caller);
  const its = and(eq(templateVersions.id, versionId), eq(templateVersions.templateId, templateId));
  const [row] = await database.select({ id: templateVersions.id }).from(templateVersions).where(its);
  if (!row) throw new Problem(404, 'No such version', 'The template has no version of that name. Choose another one.');
  const { template, version } = await templateVersion(database, versionId);
  return { template, version };
}
