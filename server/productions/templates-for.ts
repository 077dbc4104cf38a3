import { and, eq, isNull } from 'drizzle-orm';
import { unfitFor } from '../../core/production/compose';
import { partField, partText } from '../../core/record/layout';
import { treeOf } from '../../core/record/paths';
import type { RecordSchema } from '../../core/record/schema';
import { DOCUMENT_KINDS } from '../../core/template/document-kinds';
import { fitReadsOf } from '../../core/template/reads';
import { now } from '../clock';
import { config, today } from '../config';
import type { Database } from '../db/database';
import { templates } from '../db/schema';
import { seesKind } from '../people/access';
import type { Caller } from '../people/caller';
import { schemaFor } from '../records/record-list';
import type { RecordId } from '../records/source';
import { crm } from '../records/sources';
import { registeredFor } from './registered';
import { templateVersion, type PublishedTemplate } from './template';

/** A template that is offered for a record. */
interface OfferedTemplate {
  id: string;
  name: string;
  kind: string;
  /** Why it is not for this record; null where it is. */
  unfit: string | null;
  /** Whether it is usually produced at the record's stage. */
  isUsual: boolean;
}

/**
 * The templates that a caller can make documents of a record from: those that fit it come first, the usual ones of its stage on top, and
 * otherwise in the course of a sale.
 * @throws Problem, SourceError
 */
export async function templatesFor(database: Database, record: RecordId, caller: Caller): Promise<OfferedTemplate[]> {
  const schema = await schemaFor(record.type, caller);
  const rows = await database
    .select({ kind: templates.kind, versionId: templates.currentVersion })
    .from(templates)
    .where(and(eq(templates.recordType, record.type), isNull(templates.archivedAt)))
    .orderBy(templates.name);
  const seen = rows.filter(({ kind }) => seesKind(caller, kind));
  const all = await Promise.all(seen.map(({ versionId }) => templateVersion(database, versionId)));
  const [snapshot, registered] = await Promise.all([
    crm.read(record, treeOf(pathsFor(all, record.type, schema), schema, record.type)),
    registeredFor(database, record, now()),
  ]);
  const stage = partText(snapshot, 'stage', schema);
  const context = { schema, issueDate: today(), timeZone: config.timeZone, registered };
  const offered = all.map(({ template, pins }): OfferedTemplate => ({
    id: template.id,
    name: template.name,
    kind: template.kind,
    unfit: unfitFor(template, snapshot, { ...context, pins }) ?? null,
    isUsual: stage !== '' && (template.stages ?? []).includes(stage),
  }));
  const course: readonly string[] = DOCUMENT_KINDS;
  const rank = ({ unfit, isUsual, kind }: OfferedTemplate) =>
    (unfit === null ? 0 : 2_000) + (isUsual ? 0 : 1_000) + course.indexOf(kind);
  return offered.sort((one, other) => rank(one) - rank(other));
}

/** What of a record says which of these templates are for it. */
function pathsFor(all: readonly PublishedTemplate[], type: string, schema: RecordSchema): (readonly string[])[] {
  const parts = (['name', 'stage'] as const).flatMap((part) => partField(schema, type, part) ?? []);
  return [...parts.map((field) => [field]), ...all.flatMap(({ template, pins }) => fitReadsOf(template, pins, schema))];
}
