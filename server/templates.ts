import { asc, count, desc, eq, max, sql } from 'drizzle-orm';
import { checkContext, renameInTemplate } from '../core/template/check';
import { DOCUMENT_KINDS, type Template } from '../core/template/template';
import { today } from './config';
import { recordSchema } from './records/record-schema';
import type { Database } from './db/database';
import { documents, templates, templateVersions } from './db/schema';
import { seenTemplate } from './productions/template';
import { seesKind } from './people/access';
import type { Caller } from './people/caller';
import { Problem } from './problem';
import type { BodyOf } from '../core/contract/endpoint';
import type { Contract } from '../core/contract/contract';
import { publish, type Published } from './publish';
import type { Services } from './services';

/** Every template that a caller may see, with how it is used, in the course of a sale: quotes before invoices. */
export async function listTemplates(database: Database, caller: Caller) {
  const course: readonly string[] = DOCUMENT_KINDS;
  const versions = await database
    .select({
      id: templates.id,
      name: templates.name,
      kind: templates.kind,
      recordType: templates.recordType,
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
  const all = versions
    .filter(({ kind }) => seesKind(caller, kind))
    .map((each) => ({
      ...each,
      documents: used.get(each.id)?.count ?? 0,
      lastUsed: used.get(each.id)?.last ?? null,
    }));
  return all.sort((one, other) => course.indexOf(one.kind) - course.indexOf(other.kind));
}

/** A template with what its formulas are checked against. @throws Problem, SourceError */
export async function templateWithSchema(database: Database, templateId: string, caller: Caller) {
  const { template, pins, version, versionId } = await seenTemplate(database, templateId, caller);
  const schema = await recordSchema();
  return { template, version, versionId, schema, pins, issueDate: today() };
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

/**
 * Publishes a template with another figure sheet as its next version. Formulas of the page follow the renames.
 * @throws Problem
 */
export async function publishSheet(
  services: Services,
  templateId: string,
  change: BodyOf<Contract['PUT /templates/{id}/sheet']>,
  caller: Caller,
): Promise<Published> {
  const { template, pins, versionId, schema } = await templateWithSchema(services.database, templateId, caller);
  if (versionId !== change.base) {
    throw new Problem(
      409,
      'A newer version was published',
      'Someone published another version meanwhile. Open the figure sheet again and make the change there.',
      { reason: 'template' },
    );
  }
  const followed = change.renames.reduce<Template>((each, { key, name }) => {
    return { ...renameInTemplate(each, checkContext(each, schema, pins.houseStyles), key, name) };
  }, template);
  return publish(services, { ...followed, sheet: change.sheet }, pins, {
    base: versionId,
    reason: change.reason,
    caller,
  });
}
