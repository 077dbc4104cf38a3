import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { contract, type Contract } from '../../core/contract/contract';
import type { AnswerOf } from '../../core/contract/endpoint';
import type { Template } from '../../core/template/template';
import { closeDatabase, openDatabase } from '../../server/db/database';
import {
  productions,
  templateDrafts,
  templateEditors,
  templates,
  templateVersions,
  trail,
} from '../../server/db/schema';
import {
  beginDraft,
  beginNew,
  dropClosedEditors,
  listDrafts,
  openDraft,
  publishDraft,
  saveDraft,
  seeEditor,
  throwDraftAway,
} from '../../server/drafts';
import { proofDraft, recordsToProveOn } from '../../server/draft-proof';
import { draftTrial } from '../../server/draft-trial';
import { fileOf, putFile } from '../../server/files';
import type { Caller } from '../../server/people/caller';
import { Press } from '../../server/press/press';
import { Problem } from '../../server/problem';
import { beginFiling } from '../../server/productions/begin';
import { valuesHeld } from '../../server/records/record-list';
import type { Services } from '../../server/services';
import { listVersions } from '../../server/templates';
import { callerWith } from '../callers';
import { readPages } from '../read-pdf';
import { proofOf } from './produce';
import { openStack, type Stack } from './stack';

let stack: Stack;
let press: Press;
const CALLER = callerWith();
const database = () => openDatabase().database;
const services = () => ({ database: database(), press }) as unknown as Services;
const ID = 'glasshouse-quote';
/** Some deals of the demo have no currency yet. */
const REASON = 'They wait for their prices';
const OTHER: Caller = { ...CALLER, id: randomUUID(), name: 'Ines Aldan' };

beforeAll(async () => {
  stack = await openStack();
  press = new Press(1);
});
afterAll(async () => {
  press.close();
  await closeDatabase();
  await stack.close();
});
beforeEach(async () => {
  await database().delete(templateDrafts);
  await database().delete(templateEditors);
});

const opened = async (id = ID) => (await openDraft(services(), id, CALLER)).template;
const named = (template: Template, name: string): Template => ({ ...template, name });
const save = (template: Template, revision: number, caller = CALLER) =>
  saveDraft(services(), template.id, { revision, template }, caller);
const refused = async (tried: Promise<unknown>): Promise<Problem> => {
  const thrown: unknown = await tried.then(
    () => undefined,
    (problem: unknown) => problem,
  );
  expect(thrown).toBeInstanceOf(Problem);
  return thrown as Problem;
};

it('is what is published, until something is changed; then it is kept beside it', async () => {
  const before = await openDraft(services(), ID, CALLER);
  expect(before).toMatchObject({ revision: 0, version: 1, editedBy: null, base: before.versionId });
  expect(await listDrafts(database(), CALLER)).toEqual([]);
  const { revision } = await save(named(before.template, 'Our quote'), 0);
  expect(await save(named(before.template, 'Our own quote'), revision)).toMatchObject({ revision: 2 });
  expect(await openDraft(services(), ID, OTHER)).toMatchObject({
    template: named(before.template, 'Our own quote'),
    revision: 2,
    base: before.versionId,
    editedBy: CALLER.name,
  });
  expect(await listDrafts(database(), CALLER)).toMatchObject([{ id: ID, name: 'Our own quote', isPublished: true }]);
  expect((await proofOf(services(), 'D-1188', ID, CALLER)).template.name).toBe(before.template.name);
});

it('is refused with both at hand where somebody else saved meanwhile, and saved once where it is sent twice', async () => {
  const template = await opened();
  await save(named(template, 'Theirs'), 0, OTHER);
  const { status, title, members } = await refused(save(named(template, 'Mine'), 0));
  expect([status, title]).toEqual([409, 'Ines Aldan changed this draft meanwhile']);
  expect(members).toMatchObject({ reason: 'draft', draft: { revision: 1, template: named(template, 'Theirs') } });
  expect((await refused(save(named(template, 'Mine'), 0, OTHER))).title).toBe(
    'You changed this draft in another window',
  );
  // An answer that was lost is asked for again.
  expect(await save(named(template, 'Theirs'), 0)).toMatchObject({ revision: 1 });
  const two = await Promise.allSettled([save(named(template, 'A'), 1), save(named(template, 'B'), 1, OTHER)]);
  expect(two.map(({ status: how }) => how).sort()).toEqual(['fulfilled', 'rejected']);
});

it('of two who begin at once the second is told', async () => {
  const template = await opened();
  const two = await Promise.allSettled([save(named(template, 'A'), 0), save(named(template, 'B'), 0, OTHER)]);
  expect(two.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  expect((await openDraft(services(), ID, CALLER)).revision).toBe(1);
});

it('is published through the gate with its note, and is gone then', async () => {
  const template = await opened();
  const total = (formula: string): Template => ({
    ...template,
    sheet: {
      ...template.sheet,
      document: template.sheet.document.map((each) => (each.name === 'total' ? { ...each, formula } : each)),
    },
  });
  await save(total('subtotal + nothing_of_the_kind'), 0);
  const faulty = await refused(publishDraft(services(), ID, { revision: 1 }, CALLER));
  expect([faulty.status, faulty.detail]).toEqual([422, expect.stringContaining('nothing_of_the_kind')]);
  await save(named(template, 'Quote, as it is'), 1);
  expect((await refused(publishDraft(services(), ID, { revision: 1 }, CALLER))).status).toBe(409);
  const { version } = await publishDraft(
    services(),
    ID,
    { revision: 2, note: ' A shorter name. ', reason: REASON },
    CALLER,
  );
  expect((await listVersions(database(), ID, CALLER))[0]).toMatchObject({
    version,
    note: 'A shorter name.',
    isCurrent: true,
  });
  expect(await openDraft(services(), ID, CALLER)).toMatchObject({
    revision: 0,
    version,
    template: { name: 'Quote, as it is' },
  });
  expect((await refused(publishDraft(services(), ID, { revision: 2 }, CALLER))).title).toBe('The draft is gone');
});

it('that began with an older version replaces the newer one only where that is said', async () => {
  const template = await opened('delivery-note');
  await save(named(template, 'Mine'), 0);
  const [row] = await database().select().from(templateVersions).where(eq(templateVersions.templateId, template.id));
  const newer = { ...row!, id: randomUUID(), version: 7 };
  await database().insert(templateVersions).values(newer);
  await database().update(templates).set({ currentVersion: newer.id }).where(eq(templates.id, template.id));
  const { title, members } = await refused(
    publishDraft(services(), template.id, { revision: 1, reason: REASON }, CALLER),
  );
  expect([title, members]).toEqual([
    'A newer version was published',
    { reason: 'template', version: { versionId: newer.id } },
  ]);
  expect((await openDraft(services(), template.id, CALLER)).revision).toBe(1);
  expect(
    await publishDraft(services(), template.id, { revision: 1, reason: REASON, over: newer.id }, CALLER),
  ).toMatchObject({
    version: 8,
  });
});

it('is thrown away, which the trail tells, and can be saved again', async () => {
  const template = await opened();
  await save(named(template, 'Mine'), 0);
  expect((await refused(throwDraftAway(services(), ID, 4, CALLER))).status).toBe(409);
  expect(await throwDraftAway(services(), ID, 1, CALLER)).toEqual({ revision: 0 });
  expect(await throwDraftAway(services(), ID, 1, CALLER)).toEqual({ revision: 0 });
  const told = await database().select().from(trail).where(eq(trail.act, 'threw away'));
  expect(told.map(({ sentence }) => sentence)).toEqual(['Threw the draft of “Mine” away.']);
  expect((await refused(save(named(template, 'Late'), 1))).title).toBe('The draft is gone');
  expect(await save(named(template, 'Mine'), 0)).toMatchObject({ revision: 1 });
});

it('of a template that was never published is all there is of it', async () => {
  const template = { ...(await opened()), id: 'own-letter', name: 'Own letter' };
  await save(template, 0);
  expect(await openDraft(services(), 'own-letter', CALLER)).toMatchObject({ base: null, version: null, revision: 1 });
  expect(await listDrafts(database(), CALLER)).toMatchObject([{ id: 'own-letter', isPublished: false }]);
  await throwDraftAway(services(), 'own-letter', 1, CALLER);
  for (const tried of [
    () => openDraft(services(), 'own-letter', CALLER),
    () => throwDraftAway(services(), 'own-letter', 1, CALLER),
    () => publishDraft(services(), 'own-letter', { revision: 1 }, CALLER),
  ])
    expect((await refused(tried())).status).toBe(404);
  const wrong = saveDraft(services(), 'own-letter', { revision: 0, template: { ...template, id: 'other' } }, CALLER);
  expect((await refused(wrong)).status).toBe(422);
});

it('is known to be worked on by others as long as they say so', async () => {
  const [mine, second, theirs] = [randomUUID(), randomUUID(), randomUUID()];
  const see = (window: string, caller = CALLER, leaves = false) =>
    seeEditor(services(), ID, { window, leaves }, caller);
  expect(await see(mine)).toMatchObject({ revision: 0, others: [] });
  await see(theirs, OTHER);
  await see(second);
  const { others } = await see(mine);
  expect(others.map(({ name, isYou }) => [name, isYou])).toEqual([
    ['Ines Aldan', false],
    [CALLER.name, true],
  ]);
  // Nobody closes the window of somebody else.
  await see(theirs, CALLER, true);
  expect((await see(mine)).others).toHaveLength(2);
  await see(theirs, OTHER, true);
  await database()
    .update(templateEditors)
    .set({ seenAt: new Date(Date.now() - 40_000) })
    .where(eq(templateEditors.window, second));
  expect((await see(mine)).others).toEqual([]);
  await dropClosedEditors(database(), Date.now() + 270_000);
  expect((await database().select().from(templateEditors)).map(({ window }) => window)).toEqual([mine]);
});

it('begins a new template under an id and a name that are free among templates and drafts', async () => {
  const template = await opened();
  const begun = () => beginDraft(services(), template, CALLER);
  expect(await begun()).toEqual({ id: `${ID}-2`, name: `${template.name} (2)`, revision: 1 });
  expect(await begun()).toEqual({ id: `${ID}-3`, name: `${template.name} (3)`, revision: 1 });
  expect(await openDraft(services(), `${ID}-3`, CALLER)).toMatchObject({ base: null, template: { id: `${ID}-3` } });
});

it.each([
  ['letter', 'letter'],
  ['credit note', 'credit'],
  ['order confirmation', 'order'],
  ['receipt', 'receipt'],
] as const)(
  'begun as a %s takes its number from the series “%s”, and what is begun twice gets a name of its own',
  async (kind, series) => {
    const beginning = { name: 'Spring', kind, recordType: 'Deal', from: 'starter' } as const;
    const { id, revision } = await beginNew(services(), beginning, CALLER);
    expect([id, revision]).toEqual(['spring', 1]);
    const { template } = await openDraft(services(), id, CALLER);
    expect(template).toMatchObject({ kind, houseStyle: 'orrin-vale', plans: [{ series }] });
    expect(await beginNew(services(), beginning, CALLER)).toMatchObject({ id: 'spring-2', name: 'Spring (2)' });
  },
);

it('begun for records that the CRM has not is refused', async () => {
  const beginning = { name: 'Spring', kind: 'quote', recordType: 'Nothing', from: 'empty' } as const;
  expect(await refused(beginNew(services(), beginning, CALLER))).toMatchObject({
    status: 422,
    title: 'There are no such records',
  });
});

it('its files are looked over, kept once, and found by their hash', async () => {
  const square = Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"><rect width="10" height="10"/></svg>',
  );
  const kept = await putFile(services(), square);
  expect(kept).toMatchObject({ mediaType: 'image/svg+xml', width: 10, height: 10 });
  expect(await putFile(services(), square)).toEqual(kept);
  expect(await fileOf(database(), kept.sha256)).toEqual({ mediaType: 'image/svg+xml', bytes: new Uint8Array(square) });
  expect(await refused(putFile(services(), Buffer.from('no picture at all')))).toMatchObject({
    status: 422,
    title: 'This file cannot be used',
  });
  expect(await refused(fileOf(database(), '0'.repeat(64)))).toMatchObject({ status: 404 });
});

it('can be had as a trial for a record and for the sample that is kept with it, and says why not', async () => {
  const template = await opened();
  await save({ ...named(template, 'Mine'), sample: { name: 'Made up', currency: 'GBP', account: 'Nobody & Sons' } }, 0);
  const trial = await draftTrial(services(), ID, 'D-1187', CALLER);
  expect(trial.fileName).toMatch(/ \(trial\)\.pdf$/);
  const printed = await textOf(trial.bytes);
  expect(printed).toContain('Vent renewal, house 3');
  expect(printed).toContain('Trial');
  expect(await textOf((await draftTrial(services(), ID, undefined, CALLER)).bytes)).toContain('Nobody & Sons');
  await save({ ...template, sample: { nme: 'Made up' } }, 1);
  const wrong = await refused(draftTrial(services(), ID, undefined, CALLER));
  expect(wrong).toMatchObject({
    title: 'The sample record has mistakes',
    message: expect.stringContaining('“name”') as string,
  });
  await save(template, 2);
  expect((await refused(draftTrial(services(), ID, undefined, CALLER))).title).toBe('There is no sample record');
  await save({ ...template, checks: [{ ...template.checks[0]!, formula: 'NOFUNCTION()' }] }, 3);
  expect((await refused(draftTrial(services(), ID, 'D-1188', CALLER))).title).toBe('The draft has mistakes');
});

/** What stands on the pages of a PDF. */
async function textOf(bytes: Buffer): Promise<string> {
  const file = join(mkdtempSync(join(tmpdir(), 'lumbix-trial-')), 'trial.pdf');
  writeFileSync(file, bytes);
  const pages = await readPages(file);
  return pages.flatMap(({ lines }) => lines.map((line) => line.text)).join('\n');
}

it('joins the PDFs that the products of its lines have, each once', async () => {
  const template = await opened();
  const annexes = [{ id: 'sheets', label: 'Data sheets', file: 'lines.product.data_sheet' }];
  await save({ ...template, annexes }, 0);
  const printed = await textOf((await draftTrial(services(), ID, 'D-1203', CALLER)).bytes);
  expect(printed.match(/Data sheet \S+/g)).toEqual(['Data sheet GL-4T', 'Data sheet GL-16D', 'Data sheet PC-16']);
});

it('names the records that it is proved on, with every field that a condition can look at', async () => {
  const template = await opened();
  const usual = await recordsToProveOn(services(), ID, true, CALLER);
  expect(usual).toHaveLength(10);
  expect(new Set(usual.map(({ id }) => id)).size).toBe(10);
  const wanted = ['D-1203', 'D-1187'];
  await save({ ...template, proofRecords: wanted }, 0);
  const chosen = await recordsToProveOn(services(), ID, true, CALLER);
  expect(chosen.map(({ id }) => id)).toEqual(wanted);
  expect(chosen[1]).toMatchObject({
    name: 'Vent renewal, house 3',
    record: { fields: { heating: 'pipe', account: { fields: { name: 'Marlow Fen Nurseries' } } } },
  });
  expect((await recordsToProveOn(services(), ID, false, CALLER)).map(({ record }) => record)).toEqual([
    undefined,
    undefined,
  ]);
  // A formula that cannot be read yet keeps nobody from looking.
  await save({ ...template, edition: 'deal.(' }, 1);
  expect(await recordsToProveOn(services(), ID, true, CALLER)).toHaveLength(10);
});

it('tells which values records hold, and how many of them', async () => {
  const { among, values } = await valuesHeld('Deal', 'account.country', CALLER);
  expect(among).toBeGreaterThan(20);
  expect(values[0]!.count).toBeGreaterThan(values.at(-1)!.count);
  expect(values.reduce((sum, { count }) => sum + count, 0)).toBeLessThanOrEqual(among);
  expect((await valuesHeld('Deal', 'nothing.there', CALLER)).values).toEqual([]);
  expect(await refused(valuesHeld('Nothing', 'name', CALLER))).toMatchObject({ status: 404 });
});

/** What a proof of a draft was answered with. */
async function proved(template: Template, more: Partial<Parameters<typeof proofDraft>[2]> = {}) {
  const wanted = { template, record: 'D-1187', ...more };
  const { bytes } = await proofDraft(services(), ID, wanted, CALLER, { has: [], near: [1], encoding: 'identity' });
  return JSON.parse(new TextDecoder().decode(bytes)) as AnswerOf<Contract['POST /templates/{id}/draft/proof']>;
}
const productionsKept = async () => (await database().select().from(productions)).length;

describe('the proof of a draft', () => {
  it('is of the draft as it is given, in the edition and the house style that are wished', async () => {
    const template = await opened();
    const heading = template.layout.body.findIndex(({ type }) => type === 'heading');
    const body = template.layout.body.toSpliced(heading, 0, {
      type: 'paragraph',
      attrs: { id: 'not-saved' },
      content: [{ type: 'value', attrs: { id: 'not-saved-value', formula: '"never saved"' } }],
    });
    const shown = await proved({ ...template, layout: { ...template.layout, body } });
    expect(Object.values(shown.values).map(({ text }) => text)).toContain('never saved');
    expect(shown.record).toMatchObject({ id: 'D-1187', name: 'Vent renewal, house 3' });
    expect(shown.pages.pages[0]!.drawing).toContain('<svg');
    expect((await proved(template, { edition: 'nl' })).edition).toBe('nl');
    const [, other] = template.editions.flatMap(({ houseStyle }) => houseStyle ?? []);
    if (other) expect((await proved(template, { houseStyle: other })).houseStyle).toBe(other);
  });

  it('shows values that are tried, and nothing can be filed from it', async () => {
    const template = await opened();
    const before = await productionsKept();
    const plain = await proved(template);
    const tried = await proved(template, { tried: [{ path: 'deal.name', value: 'A name that is tried' }] });
    expect(tried.title).not.toBe(plain.title);
    expect(JSON.stringify(tried.values)).toContain('A name that is tried');
    // It names no production, keeps none, and what it was made from is asked for by no other route.
    expect(tried).not.toHaveProperty('id');
    expect(await productionsKept()).toBe(before);
    const filed = beginFiling(services(), { production: randomUUID(), skips: {} }, randomUUID(), CALLER);
    expect((await refused(filed)).title).toBe('This proof is no longer open');
    const asked = contract['POST /productions'].body.isValidSync(
      { template: ID, record: 'D-1187', tried: [{ path: 'deal.name', value: 'x' }] },
      { strict: true },
    );
    expect(asked).toBe(false);
    // The next proof of the record is made of what the CRM has.
    expect((await proved(template)).title).toBe(plain.title);
  });

  it('says what is wrong with a draft, and with a value that is tried', async () => {
    const template = await opened();
    expect((await refused(proved(template, { tried: [{ path: 'deal.heating', value: 'stove' }] }))).title).toBe(
      'A value cannot be tried',
    );
    expect(
      (await refused(proved({ ...template, plans: [{ ...template.plans[0]!, title: 'Quote =[deal.name' }] }))).title,
    ).toBe('A formula cannot be read');
    expect((await refused(proved({ ...template, id: 'another' }))).title).toBe('This is another template');
  });
});
