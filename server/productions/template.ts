import { eq } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { partField } from '../../core/record/layout';
import { treeOf, type PathTree } from '../../core/record/paths';
import type { RecordSchema } from '../../core/record/schema';
import type { Choices } from '../../core/production/production';
import type { Pins, Template } from '../../core/template/template';
import { keptVersion } from '../../core/template/file/kept';
import { placesOfPlans } from '../../core/template/plan-faults';
import { readsOf } from '../../core/template/reads';
import type { RecordSnapshot } from '../../core/record/snapshot';
import { now } from '../clock';
import { recordSchema } from '../records/record-schema';
import type { Connection } from '../db/database';
import { templates, templateVersions } from '../db/schema';
import { refuseUnseenKind, refuseUnseenRecord } from '../people/access';
import type { Caller } from '../people/caller';
import { Problem } from '../problem';
import { availableAssets, type Keeping } from '../assets';
import { placeLabels } from '../copies/places';
import { withPictures } from '../records/pictures';
import { crm } from '../records/sources';
import { registeredFor } from './registered';
import type { ComposeContext } from '../../core/production/compose';
import { config, today } from '../config';
import type { CompositionInput } from '../press/press';

/** A published version of a template, with what it holds on to. */
export interface PublishedTemplate {
  versionId: string;
  version: number;
  template: Template;
  pins: Pins;
}

/** Versions never change: what was read once is kept for the next time. */
const knownVersions = new LRUCache<string, PublishedTemplate>({ max: 200 });

/** The version that is used now. Nothing is produced from a template that is archived. */
export interface CurrentTemplate extends PublishedTemplate {
  archivedAt: Date | null;
}

/** The version of a template that documents are produced from now, where there is such a template. */
export async function findTemplate(connection: Connection, templateId: string): Promise<CurrentTemplate | undefined> {
  const [row] = await connection
    .select({ versionId: templates.currentVersion, archivedAt: templates.archivedAt })
    .from(templates)
    .where(eq(templates.id, templateId));
  return row && { ...(await templateVersion(connection, row.versionId)), archivedAt: row.archivedAt };
}

/** The same for a template that has to be there. @throws Problem */
export async function currentTemplate(connection: Connection, templateId: string): Promise<CurrentTemplate> {
  const template = await findTemplate(connection, templateId);
  if (!template)
    throw new Problem(404, 'No such template', 'This template does not exist any more. Choose another one.');
  return template;
}

/** The same for a caller who may see templates of its kind. @throws Problem */
export async function seenTemplate(
  connection: Connection,
  templateId: string,
  caller: Caller,
): Promise<CurrentTemplate> {
  const published = await currentTemplate(connection, templateId);
  refuseUnseenKind(caller, published.template.kind);
  refuseUnseenRecord(caller, published.template.record.type);
  return published;
}

/** The same where documents are to be produced from it. @throws Problem for one that is archived too */
export async function producibleTemplate(
  connection: Connection,
  templateId: string,
  caller: Caller,
): Promise<PublishedTemplate> {
  const seen = await seenTemplate(connection, templateId, caller);
  if (seen.archivedAt)
    throw new Problem(
      409,
      'This template is archived',
      'Nothing is produced from it any more. Choose another one, or ask an author to bring it back.',
      { reason: 'archived' },
    );
  return seen;
}

/** A published version, by its own id. */
export async function templateVersion(connection: Connection, versionId: string): Promise<PublishedTemplate> {
  const known = knownVersions.get(versionId);
  if (known) return known;
  const [row] = await connection.select().from(templateVersions).where(eq(templateVersions.id, versionId));
  if (!row) throw new Error(`The template version ${versionId} is gone.`);
  const { version, body, pins } = row;
  const published = { versionId, version, ...keptVersion({ template: body, pins }) };
  knownVersions.set(versionId, published);
  return published;
}

/** What versions read, by the schema it was found with: versions never change, the schema seldom. */
const knownReads = new LRUCache<string, { of: RecordSchema; paths: PathTree }>({ max: 200 });

/**
 * Reads the record with exactly what the template uses, in one request, and the pictures it prints after it.
 * @throws SourceError
 */
export async function readForTemplate(
  keeping: Keeping,
  { template, pins, versionId }: PublishedTemplate,
  recordId: string,
  { changes = [], clauses = [] }: Choices = {},
): Promise<RecordSnapshot> {
  const schema = await recordSchema();
  if (clauses.length === 0)
    return readWithPaths(keeping, template, readsOfVersion(template, pins, schema, versionId), recordId);
  // What is put in may read more than the template does.
  const added = changes.flatMap(({ change }) => (change.type === 'add' ? change.content : []));
  const { layout } = template;
  const whole = { ...template, layout: { ...layout, body: [...layout.body, ...added] } };
  const paths = readsOf(whole, { ...pins, clauses: [...pins.clauses, ...clauses] }, schema);
  return readWithPaths(keeping, template, paths, recordId);
}

/** The same where what the template reads is known already. @throws SourceError */
export async function readWithPaths(
  keeping: Keeping,
  template: Template,
  paths: PathTree,
  recordId: string,
): Promise<RecordSnapshot> {
  const { type } = template.record;
  const all = withParts(paths, type, await recordSchema());
  return withPictures(keeping, await crm.read({ type, id: recordId }, all));
}

/** The same for many records. Records that are not there are left out. @throws SourceError */
export async function readAllWithPaths(
  keeping: Keeping,
  template: Template,
  paths: PathTree,
  ids: readonly string[],
): Promise<RecordSnapshot[]> {
  const { type } = template.record;
  const read = await crm.readMany(type, ids, withParts(paths, type, await recordSchema()));
  const all: RecordSnapshot[] = [];
  for (const snapshot of read) all.push(await withPictures(keeping, snapshot));
  return all;
}

/** A record's name and its account are what the register and the screens call it by. */
function withParts(paths: PathTree, type: string, schema: RecordSchema): PathTree {
  const wanted = (['name', 'account'] as const).flatMap((part) => partField(schema, type, part) ?? []);
  const parts = treeOf(
    wanted.map((field) => [field]),
    schema,
    type,
  );
  return {
    fields: new Set([...paths.fields, ...parts.fields]),
    related: new Map([...parts.related, ...paths.related]),
  };
}

/** What a published version reads, found once as long as the schema is the same. */
function readsOfVersion(template: Template, pins: Pins, schema: RecordSchema, versionId: string): PathTree {
  const known = knownReads.get(versionId);
  if (known?.of === schema) return known.paths;
  const paths = readsOf(template, pins, schema);
  knownReads.set(versionId, { of: schema, paths });
  return paths;
}

/** What to compose: a template, a record, the circumstances, and what was filed for the record `before` a moment. */
export async function compositionInput(
  connection: Connection,
  { template, pins }: Pick<PublishedTemplate, 'template' | 'pins'>,
  snapshot: RecordSnapshot,
  circumstances: Partial<
    Pick<
      ComposeContext,
      'issueDate' | 'edition' | 'houseStyle' | 'plan' | 'number' | 'trial' | 'changes' | 'files' | 'earlier' | 'asNew'
    >
  > = {},
  before = now(),
): Promise<CompositionInput> {
  const [schema, available, registered, places] = await Promise.all([
    recordSchema(),
    availableAssets(connection, template, snapshot, circumstances.files),
    registeredFor(connection, snapshot, before),
    placeLabels(connection, placesOfPlans(template.plans)),
  ]);
  const { timeZone } = config;
  const context: ComposeContext = {
    schema,
    pins,
    issueDate: today(),
    available,
    timeZone,
    registered,
    places,
    ...circumstances,
  };
  return { template, snapshot, context };
}
