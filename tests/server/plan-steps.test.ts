import { mkdtemp, readdir, rm } from 'node:fs/promises';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { and, eq } from 'drizzle-orm';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { PlaceSettings } from '../../core/contract/places';
import type { PlanStep } from '../../core/template/plan';
import { keepCopy } from '../../server/copies/keep-copy';
import { listPlaces, openPlace, removePlace, setUpPlace, testPlace } from '../../server/copies/places';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { steps } from '../../server/db/schema';
import { addVersion, makeCurrent } from '../../server/db/shipped';
import { openQueue, type Queue } from '../../server/jobs/queue';
import { Press } from '../../server/press/press';
import { advance } from '../../server/productions/engine';
import { currentTemplate } from '../../server/productions/template';
import { letGo, tryAgain } from '../../server/productions/ways-on';
import { crm } from '../../server/records/sources';
import { recordSchema } from '../../server/records/record-schema';
import { treeOf } from '../../core/record/paths';
import { readDocument } from '../../server/register';
import type { Services } from '../../server/services';
import { createStorage, prepareStorage } from '../../standins/storage/server';
import type { Fault } from '../../standins/faults';
import { callerWith } from '../callers';
import { fileAs, proofOf, requestFor } from './produce';
import { openStack, type Stack } from './stack';

/** Steps after filing, in this process and one call at a time, with the CRM and a storage that stand in for real ones. */
const CALLER = callerWith();
const TEMPLATE = 'glasshouse-quote';
const SECRET = 'local-only';
let stack: Stack;
let queue: Queue;
let press: Press;
let folder: string;
let storage: Server;
let storageUrl: string;
const database = () => openDatabase().database;
const services = () => ({ database: database(), queue, press }) as unknown as Services;

beforeAll(async () => {
  stack = await openStack();
  queue = await openQueue();
  press = new Press(1);
  folder = await mkdtemp(join(tmpdir(), 'lumbix-copies-'));
  Object.assign(process.env, { LUMBIX_COPIES: join(folder, 'copies'), LUMBIX_URL: 'https://lumbix.example' });
  await prepareStorage(join(folder, 'storage'));
  storage = createStorage({ folder: join(folder, 'storage'), user: 'lumbix', secret: SECRET });
  await new Promise<void>((listening) => storage.listen(0, '127.0.0.1', listening));
  storageUrl = `http://127.0.0.1:${(storage.address() as AddressInfo).port}`;
});
afterEach(async () => {
  await stack.clearFaults();
  await fetch(`${storageUrl}/faults`, { method: 'DELETE' });
});
afterAll(async () => {
  storage.close();
  storage.closeAllConnections();
  await rm(folder, { recursive: true });
  await queue.close();
  press.close();
  await closeDatabase();
  await stack.close();
});

const storageFault = (fault: Fault) => fetch(`${storageUrl}/faults`, { method: 'POST', body: JSON.stringify(fault) });

/** Publishes the quote with these steps in its first plan. */
async function publishWith(planned: PlanStep[]): Promise<void> {
  const { template, pins } = await currentTemplate(database(), TEMPLATE);
  const changed = { ...template, plans: [{ ...template.plans[0]!, steps: planned }] };
  const { id } = await addVersion(database(), changed, pins, { origin: 'made' });
  await makeCurrent(database(), changed, id);
}

/** Files a quote and takes it as far as it goes. */
async function filed(deal: string): Promise<string> {
  const { id } = await fileAs(services(), await requestFor(services(), deal, TEMPLATE, CALLER), CALLER);
  await advance(services(), id);
  return id;
}

const shown = async (id: string) => (await readDocument(database(), id, CALLER)).document;
const statesOf = async (id: string) => (await shown(id)).steps.map(({ state }) => state);
/** Takes up what waits, without its pause. */
async function again(id: string): Promise<void> {
  await database()
    .update(steps)
    .set({ dueAt: new Date() })
    .where(and(eq(steps.documentId, id), eq(steps.state, 'open')));
  await advance(services(), id);
}

async function dealNow(id: string) {
  const schema = await recordSchema();
  const paths = [['stage'], ['owner'], ['document_link'], ['activities', 'subject'], ['activities', 'kind']];
  const deal = await crm.read({ type: 'Deal', id }, treeOf(paths, schema, 'Deal'));
  const activities = deal.fields.activities as unknown as { fields: { subject: string; kind: string } }[];
  const { stage, owner, document_link } = deal.fields;
  return { stage, owner, document_link, version: deal.version, activities: activities.map(({ fields }) => fields) };
}

const NOTE: PlanStep = { type: 'activity', id: 'note', kind: 'call', subject: 'Quote =[document.number]' };
const QUOTED: PlanStep = { type: 'setFields', id: 'stage', fields: [{ field: 'stage', value: '"Quoted"' }] };

describe('the steps of a plan', () => {
  it('are done in order once the document is filed, those whose condition does not hold are skipped', async () => {
    await publishWith([
      QUOTED,
      { type: 'setFields', id: 'owner', when: 'false', fields: [{ field: 'owner', value: '"Nobody"' }] },
      NOTE,
      { type: 'address', id: 'link', field: 'document_link' },
    ]);
    const proof = await proofOf(services(), 'D-1188', TEMPLATE, CALLER);
    expect(proof.afterFiling).toEqual([
      'Sets Stage to “Quoted”.',
      expect.stringContaining('Writes the activity “Quote ') as string,
      'Puts the document’s address into Latest document.',
    ]);
    const { owner } = await dealNow('D-1188');
    const id = await filed('D-1188');
    const { number, steps: after, state, stepsLeft } = await shown(id);
    expect({ state, stepsLeft }).toEqual({ state: 'filed', stepsLeft: 0 });
    expect(after.map((each) => [each.state, each.attempts])).toEqual([
      ['done', 1],
      ['skipped', 0],
      ['done', 1],
      ['done', 1],
    ]);
    expect(await dealNow('D-1188')).toMatchObject({
      stage: 'Quoted',
      owner,
      document_link: `https://lumbix.example/register/${id}`,
      activities: [{ subject: `Quote ${number}`, kind: 'call' }],
    });
  });

  it('are each done once, whichever answer is lost', async () => {
    await publishWith([QUOTED, NOTE]);
    await stack.fault({ on: 'patch', kind: 'drop-after', times: 1 });
    await stack.fault({ on: 'activity', kind: 'cut-off', times: 1 });
    const id = await filed('D-1189');
    expect((await shown(id)).steps[0]).toMatchObject({ state: 'open', attempts: 1 });
    expect((await shown(id)).reason).toContain('CRM');
    const { version } = await dealNow('D-1189');
    // Somebody else changes the deal in between: what was done before the answer was lost is not done again.
    await stack.changeInCrm('Deals', 'D-1189', { stage: 'Negotiation' });
    expect((await dealNow('D-1189')).version).not.toBe(version);
    await again(id);
    await again(id);
    expect(await statesOf(id)).toEqual(['done', 'done']);
    const after = await dealNow('D-1189');
    expect(after.stage).toBe('Negotiation');
    expect(after.activities).toHaveLength(1);
  });

  it('that are refused are held, and those after them wait, until they are tried again or let go', async () => {
    await publishWith([QUOTED, NOTE, { type: 'address', id: 'link', field: 'document_link' }]);
    await stack.fault({ on: 'patch', kind: 'status', status: 422, times: 2 });
    await stack.fault({ on: 'activity', kind: 'status', status: 422, times: 1 });
    const id = await filed('D-1190');
    expect(await shown(id)).toMatchObject({ state: 'filed', isHeld: true, stepsLeft: 3 });
    expect(await statesOf(id)).toEqual(['held', 'open', 'open']);
    await again(id);
    expect(await statesOf(id)).toEqual(['held', 'open', 'open']);
    await tryAgain(services(), id, CALLER);
    await advance(services(), id);
    expect(await statesOf(id)).toEqual(['held', 'open', 'open']);
    await letGo(services(), id, { position: 3, reason: 'The stage was set by hand.' }, CALLER);
    await advance(services(), id);
    expect(await statesOf(id)).toEqual(['let go', 'held', 'open']);
    await tryAgain(services(), id, CALLER);
    await advance(services(), id);
    expect(await statesOf(id)).toEqual(['let go', 'done', 'done']);
    expect((await shown(id)).steps[0]!.letGo).toMatchObject({
      reason: 'The stage was set by hand.',
      by: CALLER.name,
    });
    await expect(letGo(services(), id, { position: 4, reason: 'x' }, CALLER)).rejects.toMatchObject({ status: 409 });
    await expect(tryAgain(services(), id, CALLER)).rejects.toMatchObject({ status: 409 });
  });

  it('never take a filing back, whatever a template says by then', async () => {
    await publishWith([{ type: 'copy', id: 'copy', place: 'nowhere', path: 'x' }]);
    const id = await filed('D-1191');
    expect(await shown(id)).toMatchObject({ state: 'filed', isHeld: true });
    expect((await shown(id)).reason).toBe(
      'There is no place “nowhere” for copies any more. Set it up in Setup, Copies.',
    );
  });
});

describe('copies', () => {
  const webDav = (): PlaceSettings => ({ type: 'webDav', url: `${storageUrl}/dav`, user: 'lumbix' });
  const s3 = (): PlaceSettings => ({
    type: 's3',
    url: `${storageUrl}/s3`,
    bucket: 'copies',
    region: 'local',
    user: 'lumbix',
  });
  const KINDS: [string, () => PlaceSettings][] = [
    ['a folder', () => ({ type: 'folder', folder: 'team' })],
    ['WebDAV', webDav],
    ['S3', s3],
  ];
  const setUp = (id: string, settings: PlaceSettings, secret: string | undefined = SECRET) =>
    setUpPlace(database(), id, { label: 'Team files', settings, secret }, CALLER);

  it.each(KINDS)('are kept in %s, in folders, and never in place of another file', async (_, settings) => {
    await setUp('place', settings());
    await testPlace(database(), 'place');
    const place = await openPlace(database(), 'place');
    const keep = (text: string) => keepCopy(place, 'Quotes/2026/Ü & “1”.pdf', Buffer.from(text));
    expect(await keep('one')).toBe('Quotes/2026/Ü & “1”.pdf');
    expect(await keep('one')).toBe('Quotes/2026/Ü & “1”.pdf');
    expect(await keep('two')).toBe('Quotes/2026/Ü & “1” (2).pdf');
    expect(await keep('two')).toBe('Quotes/2026/Ü & “1” (2).pdf');
    expect(Buffer.from((await place.read('Quotes/2026/Ü & “1”.pdf'))!).toString()).toBe('one');
    expect(await place.read('Quotes/none.pdf')).toBeUndefined();
  });

  it.each(KINDS.slice(1))('in %s survive lost answers, and wait for what passes', async (_, settings) => {
    await setUp('place', settings());
    await publishWith([{ type: 'copy', id: 'copy', place: 'place', path: 'Lost/=[document.number]' }]);
    await storageFault({ on: 'attach', kind: 'drop-after', times: 1 });
    const id = await filed('D-1194');
    expect(await shown(id)).toMatchObject({ isHeld: false, reason: 'Nothing answers at Team files.' });
    await storageFault({ on: 'attach', kind: 'status', status: 503, times: 1 });
    await again(id);
    expect((await shown(id)).reason).toBe('Team files answered with an error (503).');
    await again(id);
    expect(await statesOf(id)).toEqual(['done']);
    const { number } = await shown(id);
    const place = await openPlace(database(), 'place');
    expect(await place.read(`Lost/${number}.pdf`)).toBeDefined();
    expect(await place.read(`Lost/${number} (2).pdf`)).toBeUndefined();
  });

  it.each(KINDS.slice(1))(
    'are refused by %s with a wrong secret, and where the address is another',
    async (_, settings) => {
      await setUp('place', settings());
      await expect(setUp('place', settings(), 'wrong')).rejects.toMatchObject({
        status: 422,
        detail: expect.stringContaining('does not accept Lumbix’s credentials') as string,
      });
      // The kept secret stays where no other is said, but goes to no other address.
      await setUp('place', settings(), '');
      const elsewhere = { ...settings(), url: 'http://127.0.0.1:1' } as PlaceSettings;
      await expect(setUp('place', elsewhere, '')).rejects.toMatchObject({ title: 'The secret is needed' });
      await expect(setUp('place', elsewhere)).rejects.toMatchObject({
        detail: 'Nothing answers at Team files. Nothing was changed.',
      });
      expect(JSON.stringify(await listPlaces(database()))).not.toContain(SECRET);
    },
  );

  it('do not leave the folder that was chosen for them, by links neither', async () => {
    const { symlink, mkdir } = await import('node:fs/promises');
    await expect(setUp('place', { type: 'folder', folder: '../elsewhere' })).rejects.toMatchObject({ status: 422 });
    await setUp('place', { type: 'folder', folder: '' });
    await mkdir(join(folder, 'outside'), { recursive: true });
    await symlink(join(folder, 'outside'), join(folder, 'copies', 'way-out'));
    const place = await openPlace(database(), 'place');
    await expect(place.put('way-out/x.pdf', Buffer.from('x'))).rejects.toThrow('leads out');
    await expect(place.put('../x.pdf', Buffer.from('x'))).rejects.toThrow('leads out');
    expect(await readdir(join(folder, 'outside'))).toEqual([]);
  });

  it('places that templates keep copies at stay', async () => {
    await setUp('place', { type: 'folder', folder: '' });
    await publishWith([{ type: 'copy', id: 'copy', place: 'place', path: 'x' }]);
    await expect(removePlace(database(), 'place', CALLER)).rejects.toMatchObject({ status: 409 });
    await publishWith([]);
    await removePlace(database(), 'place', CALLER);
    await expect(testPlace(database(), 'place')).rejects.toMatchObject({ status: 404 });
  });
});
