import { asc, count, eq, max, sql } from 'drizzle-orm';
import { Checker } from '../core/sheet/check';
import { checkSheet } from '../core/sheet/check-sheet';
import type { FigureSheet } from '../core/sheet/figure';
import { checkContext, checkTemplate, renameInTemplate } from '../core/template/check';
import { DOCUMENT_KINDS, type Template } from '../core/template/template';
import { today } from './config';
import { crmSchema } from './crm/schema';
import { addVersion, makeCurrent } from './db/shipped';
import type { Database } from './db/database';
import { documents, templates, templateVersions } from './db/schema';
import { currentTemplate } from './filing/template';
import { Problem } from './problem';

/** Every template with how it is used, in the course of a sale: quotes before invoices. */
export async function listTemplates(database: Database) {
  const course: readonly string[] = DOCUMENT_KINDS;
  const versions = await database
    .select({ id: templates.id, name: templates.name, kind: templates.kind, recordType: templates.recordType, version: templateVersions.version, versionId: templateVersions.id, editions: sql<number>`jsonb_array_length(${templateVersions.body} -> 'editions')` })
    .from(templates)
    .innerJoin(templateVersions, eq(templates.currentVersion, templateVersions.id))
    .orderBy(asc(templates.name)); // prettier-ignore
  const uses = await database
    .select({ id: documents.templateId, count: count(), last: max(documents.filedAt) })
    .from(documents)
    .where(eq(documents.state, 'filed'))
    .groupBy(documents.templateId);
  const used = new Map(uses.map((each) => [each.id, each]));
  const all = versions.map((each) => ({ ...each, documents: used.get(each.id)?.count ?? 0, lastUsed: used.get(each.id)?.last ?? null })); // prettier-ignore
  return all.sort((one, other) => course.indexOf(one.kind) - course.indexOf(other.kind));
}

/** A template with what its formulas are checked against. @throws Problem, CrmError */
export async function templateWithSchema(database: Database, templateId: string) {
  const { template, pins, version, versionId } = await currentTemplate(database, templateId);
  const { records: schema } = await crmSchema();
  return { template, version, versionId, schema, pins, issueDate: today() };
}

/** A figure sheet as it was changed, and under which names figures went by the way. */
export interface SheetChange {
  /** The version that was changed. */
  base: string;
  renames: { key: string; name: string }[];
  sheet: FigureSheet;
}

/**
 * Publishes a template with another figure sheet as its next version. Formulas of the page follow the renames; nothing
 * is published while any formula is wrong.
 * @throws Problem
 */
export async function publishSheet(database: Database, templateId: string, change: SheetChange) {
  const { template, pins, versionId, schema } = await templateWithSchema(database, templateId);
  if (versionId !== change.base) {
    throw new Problem(409, 'The template was published anew since', 'Someone published another version meanwhile. Open the figure sheet again and make the change there.', { reason: 'template' }); // prettier-ignore
  }
  const followed = change.renames.reduce<Template>((each, { key, name }) => {
    return { ...renameInTemplate(each, checkContext(each, schema, pins.houseStyles), key, name) };
  }, template);
  const changed: Template = { ...followed, sheet: change.sheet };
  const context = checkContext(changed, schema, pins.houseStyles);
  const faults = [
    ...checkTemplate(changed, context).map(({ place, message }) => `In ${place.words}: ${message}`),
    ...sheetFaults(checkSheet(context, new Checker(context))),
  ];
  if (faults.length > 0) {
    throw new Problem(422, 'The figure sheet has mistakes', `Nothing was published. ${faults.slice(0, 3).join(' ')}`);
  }
  const id = await database.transaction(async (transaction) => {
    // Two who publish at once come one after the other here, and the second is told.
    const [row] = await transaction.select().from(templates).where(eq(templates.id, templateId)).for('update');
    if (row?.currentVersion !== change.base) throw new Problem(409, 'The template was published anew since', 'Open the figure sheet again and make the change there.', { reason: 'template' }); // prettier-ignore
    const added = await addVersion(transaction, changed, pins, 'made');
    await makeCurrent(transaction, changed, added);
    return added;
  });
  return { versionId: id };
}

function sheetFaults({ figures, problems }: ReturnType<typeof checkSheet>): string[] {
  const circles = Object.values(figures).flatMap(({ diagnostics }) => diagnostics.map(({ message }) => message));
  const names = Object.values(figures).flatMap((each) => each.problems);
  return [...new Set([...circles, ...names, ...problems])];
}
