import { eq } from 'drizzle-orm';
import type { HouseStyle, Template } from '../../core/template/template';
import { usedPaths } from '../../core/template/paths';
import type { RecordSnapshot } from '../../core/record/snapshot';
import { crmSchema } from '../crm/schema';
import { readRecord } from '../crm/records';
import type { Connection } from '../db/database';
import { templates, templateVersions } from '../db/schema';
import { Problem } from '../problem';
import { registeredFor } from './registered';
import type { ComposeContext } from '../../core/compose/compose';
import { config, today } from '../config';
import type { PressJob } from '../press/press';

/** A published version of a template, with the house style it pins. */
export interface PublishedTemplate {
  versionId: string;
  version: number;
  template: Template;
  houseStyle: HouseStyle;
}

/** The version of a template that documents are produced from now. @throws Problem */
export async function currentTemplate(connection: Connection, templateId: string): Promise<PublishedTemplate> {
  const [row] = await connection
    .select()
    .from(templates)
    .innerJoin(templateVersions, eq(templates.currentVersion, templateVersions.id))
    .where(eq(templates.id, templateId));
  if (!row) throw new Problem(404, 'No such template', 'This template does not exist any more. Choose another one.');
  const { id, version, body, houseStyle } = row.template_versions;
  return { versionId: id, version, template: body, houseStyle };
}

/** The version that a document was made from. */
export async function templateVersion(connection: Connection, versionId: string): Promise<PublishedTemplate> {
  const [row] = await connection.select().from(templateVersions).where(eq(templateVersions.id, versionId));
  if (!row) throw new Error(`The template version ${versionId} is gone.`);
  return { versionId, version: row.version, template: row.body, houseStyle: row.houseStyle };
}

/** Reads the record with exactly what the template uses, in one request. @throws CrmError */
export async function readForTemplate(template: Template, recordId: string): Promise<RecordSnapshot> {
  const { records } = await crmSchema();
  const paths = usedPaths(template, records);
  // Its name and its account's are what the register and the screens call it by.
  paths.fields.add('name');
  return readRecord(template.record.type, recordId, paths);
}

/** What to compose: a template, a record, the circumstances, and what was filed for the record `before` a moment. */
export async function pressJob(
  connection: Connection,
  { template, houseStyle }: PublishedTemplate,
  snapshot: RecordSnapshot,
  circumstances: Partial<Pick<ComposeContext, 'issueDate' | 'edition' | 'plan' | 'number'>> = {},
  before = new Date(),
): Promise<PressJob> {
  const { records: schema } = await crmSchema();
  const context: ComposeContext = {
    schema,
    houseStyle,
    issueDate: today(),
    edition: template.editions[0]!.id,
    plan: template.plans[0]!.id,
    timeZone: config.timeZone,
    registered: await registeredFor(connection, snapshot.id, before),
    ...circumstances,
  };
  return { template, snapshot, context };
}
