import { and, asc, eq, gt, lt } from 'drizzle-orm';
import type { Contract } from '../core/contract/contract';
import type { BodyOf } from '../core/contract/endpoint';
import { canonicalJson } from '../core/shape/canonical';
import { recordTypeOf } from '../core/record/schema';
import { newTemplate, type Beginning } from '../core/template/starter';
import { keptVersion } from '../core/template/file/kept';
import type { Pins, Template } from '../core/template/template';
import { withFilesKept } from './assets';
import { today } from './config';
import type { Connection, Database } from './db/database';
import { houseStyles, series, templateDrafts, templateEditors, templates, templateVersions } from './db/schema';
import { refuseUnseenKind, refuseUnseenRecord, seesKind } from './people/access';
import type { Caller } from './people/caller';
import { Problem } from './problem';
import { findTemplate, type PublishedTemplate } from './productions/template';
import { pinsFor, publish, type Published } from './publish';
import { recordSchema, schemaDigest } from './records/record-schema';
import type { Services } from './services';
import { addToTrail } from './trail';

type Draft = typeof templateDrafts.$inferSelect;

/** How long a window counts as open after it last said so, in milliseconds. It says so every ten seconds. */
const PRESENT_FOR = 30_000;

/** The drafts that a caller may see, by their names. */
export async function listDrafts(database: Database, caller: Caller) {
  const drafts = await database.select().from(templateDrafts);
  const published = await database.select({ id: templates.id }).from(templates);
  return drafts
    .map(({ templateId: id, body, editedBy, editedAt }) => ({
      id,
      name: body.name,
      kind: body.kind,
      recordType: body.record.type,
      isPublished: published.some((each) => each.id === id),
      editedBy,
      editedAt,
    }))
    .filter(({ kind }) => seesKind(caller, kind))
    .sort((one, other) => one.name.localeCompare(other.name, 'en'));
}

/** Begins a new template as a draft of what is given. @throws Problem */
export async function beginDraft({ database, press }: Services, given: Template, caller: Caller) {
  refuseUnseen(caller, given);
  const { $schema: _, ...whole } = given;
  const kept = await withFilesKept({ database, press }, whole);
  return database.transaction(async (transaction) => {
    const body = await underFreeName(transaction, kept);
    const { id, name } = body;
    const values = { templateId: id, body, revision: 1, editedById: caller.id, editedBy: caller.name };
    await transaction.insert(templateDrafts).values(values);
    return { id, name, revision: 1 };
  });
}

/** Begins a new template for a record type, in the house style and the number series that are usual here. @throws Problem, SourceError */
export async function beginNew(services: Services, beginning: Beginning, caller: Caller) {
  const schema = await recordSchema();
  if (!recordTypeOf(schema, beginning.recordType))
    throw new Problem(
      422,
      'There are no such records',
      `The CRM has no records of the type “${beginning.recordType}”. Choose another type.`,
    );
  const usual = await usualFor(services.database, beginning.kind);
  return beginDraft(services, newTemplate(beginning, { schema, ...usual }), caller);
}

/** The house style that most templates have, and the series that templates of a kind take their numbers from. */
async function usualFor(database: Database, kind: Template['kind']): Promise<{ houseStyle: string; series: string }> {
  const published = await database
    .select({ body: templateVersions.body })
    .from(templates)
    .innerJoin(templateVersions, eq(templateVersions.id, templates.currentVersion));
  const styles = (await database.select({ id: houseStyles.id }).from(houseStyles).orderBy(houseStyles.name)).map(
    ({ id }) => id,
  );
  const all = (await database.select({ id: series.id }).from(series).orderBy(series.id)).map(({ id }) => id);
  const uses = (style: string) => published.filter(({ body }) => body.houseStyle === style).length;
  const [houseStyle] = styles.sort((one, other) => uses(other) - uses(one));
  const alike = published.find(({ body }) => body.kind === kind && all.includes(body.plans[0]!.series));
  const named = all.find((id) => kind.split(' ').includes(id));
  const number = alike?.body.plans[0]!.series ?? named ?? all[0];
  if (houseStyle === undefined || number === undefined)
    throw new Problem(
      422,
      'Nothing to begin with',
      'There is no house style or no number series yet. Import a template first.',
    );
  return { houseStyle, series: number };
}

/** The same template under an id and a name that none has, published or not. */
export async function underFreeName(connection: Connection, template: Template): Promise<Template> {
  const drafts = await connection
    .select({ id: templateDrafts.templateId, body: templateDrafts.body })
    .from(templateDrafts);
  const taken = [
    ...(await connection.select({ id: templates.id, name: templates.name }).from(templates)),
    ...drafts.map(({ id, body }) => ({ id, name: body.name })),
  ];
  for (let count = 1; ; count++) {
    const own =
      count === 1 ? template : { ...template, id: `${template.id}-${count}`, name: `${template.name} (${count})` };
    if (!taken.some(({ id, name }) => id === own.id || name === own.name)) return own;
  }
}

/** A template as it is worked on, with what it is checked against. @throws Problem, SourceError */
export async function openDraft({ database }: Services, templateId: string, caller: Caller) {
  const [draft, published] = await Promise.all([findDraft(database, templateId), findTemplate(database, templateId)]);
  const template = draft ? templateOf(draft) : published?.template;
  if (!template) throw noTemplate();
  refuseUnseen(caller, template, published);
  const schema = await recordSchema();
  return {
    template,
    revision: draft?.revision ?? 0,
    base: draft ? draft.base : published!.versionId,
    versionId: published?.versionId ?? null,
    version: published?.version ?? null,
    editedBy: draft?.editedBy ?? null,
    editedAt: draft?.editedAt ?? null,
    schema,
    schemaDigest: schemaDigest(schema),
    pins: await pinsToWorkWith(database, template, published),
    issueDate: today(),
  };
}

/**
 * Saves a draft over the revision that it was changed from. The same change sent twice is saved once.
 * @throws Problem with the draft that somebody else saved meanwhile
 */
export async function saveDraft(
  { database, press }: Services,
  templateId: string,
  { revision, template }: BodyOf<Contract['PUT /templates/{id}/draft']>,
  caller: Caller,
): Promise<{ revision: number; savedAt: Date }> {
  if (template.id !== templateId)
    throw new Problem(
      422,
      'The template has another id',
      `Give the template the id “${templateId}”, as the address has it.`,
    );
  const published = await findTemplate(database, templateId);
  refuseUnseen(caller, template, published);
  const { $schema: _, ...whole } = template;
  const body = await withFilesKept({ database, press }, whole);
  return database.transaction(async (transaction) => {
    const draft = await lockedDraft(transaction, templateId);
    if (draft) refuseUnseen(caller, draft.body);
    const has = draft?.revision ?? 0;
    if (has !== revision) {
      if (draft && canonicalJson(draft.body) === canonicalJson(body)) return { revision: has, savedAt: draft.editedAt };
      throw changedMeanwhile(caller, draft, published);
    }
    const values = { body, revision: has + 1, editedById: caller.id, editedBy: caller.name, editedAt: new Date() };
    const saved = draft
      ? await transaction
          .update(templateDrafts)
          .set(values)
          .where(eq(templateDrafts.templateId, templateId))
          .returning()
      : await transaction
          .insert(templateDrafts)
          .values({ ...values, templateId, base: published?.versionId })
          .onConflictDoNothing()
          .returning();
    // Two who begin at once: the second is told.
    if (!saved[0]) throw changedMeanwhile(caller, await findDraft(transaction, templateId), published);
    return { revision: saved[0].revision, savedAt: saved[0].editedAt };
  });
}

/** Throws a draft away. @throws Problem with the draft that somebody else saved meanwhile */
export async function throwDraftAway(
  { database }: Services,
  templateId: string,
  revision: number,
  caller: Caller,
): Promise<{ revision: number }> {
  const published = await findTemplate(database, templateId);
  await database.transaction(async (transaction) => {
    const draft = await lockedDraft(transaction, templateId);
    if (!draft) {
      if (!published) throw noTemplate();
      return refuseUnseen(caller, published.template);
    }
    refuseUnseen(caller, draft.body, published);
    if (draft.revision !== revision) throw changedMeanwhile(caller, draft, published);
    await transaction.delete(templateDrafts).where(eq(templateDrafts.templateId, templateId));
    const { name } = draft.body;
    const subject = { kind: 'template', id: templateId, name } as const;
    await addToTrail(transaction, caller, 'threw away', subject, `Threw the draft of “${name}” away.`);
  });
  return { revision: 0 };
}

/** Publishes a draft as the next version of its template; then there is no draft any more. @throws Problem, SourceError */
export async function publishDraft(
  services: Services,
  templateId: string,
  { revision, note, reason, over }: BodyOf<Contract['POST /templates/{id}/versions']>,
  caller: Caller,
): Promise<Published> {
  const { database } = services;
  const published = await findTemplate(database, templateId);
  const draft = await findDraft(database, templateId);
  if (!draft && !published) throw noTemplate();
  refuseUnseen(caller, draft?.body ?? published!.template, published);
  if (draft?.revision !== revision) throw changedMeanwhile(caller, draft, published);
  const template = templateOf(draft);
  const pins = await pinsFor(database, template, 'The template was not published');
  return publish(services, template, pins, {
    base: over ?? draft.base ?? undefined,
    note: note?.trim() || undefined,
    reason,
    caller,
    with: async (transaction) => {
      const gone = await transaction
        .delete(templateDrafts)
        .where(and(eq(templateDrafts.templateId, templateId), eq(templateDrafts.revision, revision)))
        .returning();
      if (gone.length === 0) throw changedMeanwhile(caller, await findDraft(transaction, templateId), published);
    },
  });
}

/** Takes down that a window works on a draft, and tells of the others that do. @throws Problem */
export async function seeEditor(
  { database }: Services,
  templateId: string,
  { window, leaves = false }: BodyOf<Contract['POST /templates/{id}/draft/editors']>,
  caller: Caller,
) {
  const [draft, published] = await Promise.all([findDraft(database, templateId), findTemplate(database, templateId)]);
  const template = draft?.body ?? published?.template;
  if (!template) throw noTemplate();
  refuseUnseen(caller, template, published);
  const now = new Date();
  const own = and(
    eq(templateEditors.templateId, templateId),
    eq(templateEditors.window, window),
    eq(templateEditors.personId, caller.id),
  );
  if (leaves) await database.delete(templateEditors).where(own);
  else
    await database
      .insert(templateEditors)
      .values({ templateId, window, personId: caller.id, name: caller.name, since: now, seenAt: now })
      .onConflictDoUpdate({
        target: [templateEditors.templateId, templateEditors.window],
        set: { seenAt: now },
        setWhere: eq(templateEditors.personId, caller.id),
      });
  const all = await database
    .select()
    .from(templateEditors)
    .where(and(eq(templateEditors.templateId, templateId), gt(templateEditors.seenAt, new Date(+now - PRESENT_FOR))))
    .orderBy(asc(templateEditors.since));
  return {
    revision: draft?.revision ?? 0,
    schemaDigest: schemaDigest(await recordSchema()),
    others: all
      .filter((each) => each.window !== window)
      .map(({ name, personId, since }) => ({ name, isYou: personId === caller.id, since })),
  };
}

/** Drops windows that were closed without a word. */
export async function dropClosedEditors(connection: Connection, now = Date.now()): Promise<void> {
  await connection.delete(templateEditors).where(lt(templateEditors.seenAt, new Date(now - 10 * PRESENT_FOR)));
}

/** A draft's template in the current format, whatever it was stored in. */
const templateOf = ({ body }: Draft): Template =>
  keptVersion({ template: body, pins: { houseStyles: [], clauses: [] } }).template;

async function findDraft(connection: Connection, templateId: string): Promise<Draft | undefined> {
  const [draft] = await connection.select().from(templateDrafts).where(eq(templateDrafts.templateId, templateId));
  return draft;
}

/** The same for a change: two who change it come one after the other. */
async function lockedDraft(transaction: Connection, templateId: string): Promise<Draft | undefined> {
  const its = eq(templateDrafts.templateId, templateId);
  const [draft] = await transaction.select().from(templateDrafts).where(its).for('update');
  return draft;
}

/**
 * Refuses whoever may not see a template as it is given, or as it is here.
 * @throws Problem for one that is not here, or of another id, too
 */
export async function refuseUnseenTemplate(
  database: Database,
  templateId: string,
  template: Template,
  caller: Caller,
): Promise<void> {
  if (template.id !== templateId)
    throw new Problem(422, 'This is another template', 'A draft keeps the id that it began with.');
  const drafts = database.$count(templateDrafts, eq(templateDrafts.templateId, templateId));
  const [count, published] = await Promise.all([drafts, findTemplate(database, templateId)]);
  if (count === 0 && !published) throw noTemplate();
  refuseUnseen(caller, template, published);
}

/** A person who may not see a kind or a type of records may neither work on its templates nor make one of them. */
function refuseUnseen(caller: Caller, template: Template, published?: PublishedTemplate): void {
  for (const { kind, record } of [template, published?.template ?? template]) {
    refuseUnseenKind(caller, kind);
    refuseUnseenRecord(caller, record.type);
  }
}

/** The house styles and clauses as they are now; those of the published version where a draft asks for what is not here. */
async function pinsToWorkWith(
  database: Database,
  template: Template,
  published: PublishedTemplate | undefined,
): Promise<Pins> {
  try {
    return await pinsFor(database, template);
  } catch (thrown) {
    if (thrown instanceof Problem) return published?.pins ?? { houseStyles: [], clauses: [] };
    throw thrown;
  }
}

const noTemplate = () =>
  new Problem(404, 'No such template', 'This template does not exist any more. Choose another one.');

/** What is there now, for whoever has to decide between it and what they changed. */
function changedMeanwhile(caller: Caller, draft: Draft | undefined, published: PublishedTemplate | undefined): Problem {
  if (!draft)
    return new Problem(
      409,
      'The draft is gone',
      'Somebody published it or threw it away meanwhile. Nothing of your changes is lost: look at what is there now, or keep yours as a new template.',
      {
        reason: 'draft',
        draft: published && { template: published.template, revision: 0, editedBy: null, editedAt: null },
      },
    );
  const { body: template, revision, editedBy, editedById, editedAt } = draft;
  return new Problem(
    409,
    editedById === caller.id ? 'You changed this draft in another window' : `${editedBy} changed this draft meanwhile`,
    'Nothing of your changes is lost: take what is there now, or keep yours as a new template.',
    { reason: 'draft', draft: { template, revision, editedBy, editedAt } },
  );
}
