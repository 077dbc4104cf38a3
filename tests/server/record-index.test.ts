import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { changeField } from '../../server/change';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { recordIndex, recordReadings } from '../../server/db/schema';
import { openQueue, type Queue } from '../../server/jobs/queue';
import { Press } from '../../server/press/press';
import { ODataClient } from '../../server/records/odata/client';
import { crmConnection } from '../../server/records/odata/connection';
import { indexedPaths, readAnew, refreshIndex } from '../../server/records/record-index';
import { listRecords, recordSummary, wholeRecord } from '../../server/records/record-list';
import { recordSchema } from '../../server/records/record-schema';
import { crm } from '../../server/records/sources';
import type { Services } from '../../server/services';
import { callerWith } from '../callers';
import { fileAs, filingOf, proofOf } from './produce';
import { openStack, until, type Stack } from './stack';

const CALLER = callerWith();
const database = () => openDatabase().database;
const LIST = { view: 'all', sort: 'name', descending: false, skip: 0, top: 100 } as const;
const list = (query: Partial<Parameters<typeof listRecords>[2]> = {}) =>
  listRecords(database(), 'Deal', { ...LIST, ...query }, CALLER);
const row = async (id: string) => (await list()).records.find((each) => each.id === id);
const counts = async () => (await recordSummary(database(), 'Deal', {}, CALLER)).counts;
const wholeDeal = async (id: string) => (await wholeRecord({ type: 'Deal', id }, CALLER)).record;
const indexed = async () => indexedPaths(await recordSchema(), 'Deal');
let stack: Stack;
let queue: Queue;
let press: Press;

beforeAll(async () => {
  stack = await openStack();
  queue = await openQueue();
  press = new Press(1);
});
afterAll(async () => {
  await queue.close();
  press.close();
  await closeDatabase();
  await stack.close();
});

describe('the index of records', () => {
  it('is not there for a deal that Lumbix writes before it was ever read', async () => {
    await write('D-1211', 'owner', 'Nell Orrin');
    expect((await list()).total).toBe(0);
  });

  it('says that it was never read, then holds every deal as the CRM has it', async () => {
    expect(await list()).toMatchObject({ records: [], total: 0, knownAt: null });
    await refreshIndex(database());
    const { total, knownAt } = await list();
    expect(total).toBe(81);
    expect(Date.now() - knownAt!.getTime()).toBeLessThan(10_000);
    expect(await row('D-1188')).toMatchObject({
      name: 'Propagation house 40 × 12 m',
      amount: '96665.6',
      currency: 'GBP',
    });
    expect((await recordSummary(database(), 'Deal', {}, CALLER)).owners.length).toBeGreaterThan(2);
  });

  it('offers those first that are likely to show what a template did not think of', async () => {
    const { records } = await list({ sort: 'awkward', descending: true, top: 100 });
    const kept = await database().select({ id: recordIndex.id, awkward: recordIndex.awkward }).from(recordIndex);
    const scores = new Map(kept.map(({ id, awkward }) => [id, awkward]));
    const shown = records.map(({ id }) => scores.get(id)!);
    expect(shown).toEqual([...shown].sort((one, other) => other - one));
    expect(shown[0]).toBeGreaterThan(shown.at(-1)!);
    expect(records.findIndex(({ amount }) => amount === null)).toBeLessThan(records.length / 2);
    expect(records.at(-1)).toMatchObject({ amount: expect.any(String) as string, day: expect.any(String) as string });
  });

  it.each([
    ['words in any order', 'house propagation', 'D-1188'],
    ['its id', 'd-1188', 'D-1188'],
    ['a contact', 'corin ashdown', 'D-1188'],
    ['an order number', 'kh/26/0317', 'D-1188'],
    ['a sum', '96,665.6', 'D-1188'],
    ['letters without accents', 'ventilacion invernadero', 'D-1190'],
  ])('finds a deal by %s', async (_, search, id) => {
    expect((await list({ search })).records.map((each) => each.id)).toContain(id);
    expect((await list({ search: `${search} nonsense` })).total).toBe(0);
  });

  it('follows what changes, what an account is called, and what is deleted; nothing else is read', async () => {
    const [reading] = await database().select().from(recordReadings);
    expect((await crm.changes('Deal', await indexed(), reading!.link)).changed).toEqual([]);
    await stack.changeInCrm('Deals', 'D-1190', { name: 'Renamed', stage: 'Won' });
    await stack.changeInCrm('Accounts', await accountId('D-1191'), { name: 'Renamed account' });
    await stack.deleteInCrm('Deals', 'D-1206');
    await refreshIndex(database());
    expect(await row('D-1190')).toMatchObject({ name: 'Renamed', stage: 'Won' });
    expect((await row('D-1191'))!.account).toBe('Renamed account');
    expect(await row('D-1206')).toBeUndefined();
    expect((await list()).total).toBe(80);
  });

  it('reads everything anew where its link is too old, or where somebody asks; what is gone is dropped', async () => {
    await database().update(recordReadings).set({ link: 'Deals?$deltatoken=none' });
    await database()
      .insert(recordIndex)
      .values({ ...ghost(), reading: 1 });
    await refreshIndex(database());
    expect(await row('ghost')).toBeUndefined();
    expect((await list()).total).toBe(80);
    await readAnew(database(), 'Deal');
    await refreshIndex(database());
    expect((await list()).total).toBe(80);
  });

  it('knows at once what Lumbix wrote itself', async () => {
    await write('D-1209', 'name', 'Written here');
    expect((await row('D-1209'))!.name).toBe('Written here');
    // A line is no record of a list.
    const deal = await wholeDeal('D-1209');
    const [line] = deal.fields.lines as unknown as { id: string; version: string }[];
    const change = { type: 'LineItem', id: line!.id, version: line!.version, field: 'description', value: 'x' };
    await changeField(database(), change, CALLER);
    expect((await list()).total).toBe(80);
  });

  it('holds deals of which the CRM knows little', async () => {
    const little = { account_id: null, amount: null, currency: null, closes_on: null, owner: null, number: null };
    await stack.changeInCrm('Deals', 'D-1196', little);
    await stack.changeInCrm('Deals', 'D-1198', { name: '', currency: null });
    await refreshIndex(database());
    expect(await row('D-1196')).toMatchObject({ account: '', amount: null, currency: null, day: null });
    expect(await row('D-1198')).toMatchObject({ name: 'D-1198', currency: null });
  });

  it('stays as it is where its source fails in the middle', async () => {
    const before = await list();
    await stack.fault({ on: 'read', kind: 'status', status: 503, times: 20 });
    await expect(refreshIndex(database())).rejects.toMatchObject({ failure: 'away' });
    await stack.clearFaults();
    expect(await list()).toEqual(before);
  });

  it('counts a deal as quoted from the moment its quote is begun, and no more once it is void', async () => {
    const before = await counts();
    const services = { database: database(), queue, press } as unknown as Services;
    const quotable = await firstThatFiles(services, (await list({ view: 'needs-quote' })).records);
    await stack.fault({ on: 'attach', kind: 'status', status: 415, times: 1 });
    await fileAs(services, filingOf(quotable), CALLER);
    expect(await counts()).toEqual({
      ...before,
      quoted: before.quoted + 1,
      'needs-quote': before['needs-quote'] - 1,
    });
    expect((await list({ view: 'quoted' })).records.map(({ id }) => id)).toContain(quotable.record.id);
    await stack.startWorker();
    await until(async () => (await counts()).quoted === before.quoted);
    expect(await counts()).toEqual(before);
  });

  it('is kept up to date by the worker', async () => {
    await stack.changeInCrm('Deals', 'D-1195', { name: 'Seen by the worker' });
    await until(async () => (await row('D-1195'))?.name === 'Seen by the worker');
  });

  it('answers while the CRM is away', async () => {
    await stack.stopCrm();
    expect((await list({ search: 'seen by' })).total).toBe(1);
    await stack.startCrm();
  });
});

describe('a link of the CRM', () => {
  it.each([
    'http://127.0.0.1:1/odata/Deals',
    'https://elsewhere.example/odata/',
    '//elsewhere.example/odata/x',
    '../../x',
  ])('%s leads elsewhere and is not followed', async (path) => {
    const asked = new ODataClient(crmConnection).json({ path, repeatable: false });
    await expect(asked).rejects.toThrow('The CRM leads to another address than its own');
  });
});

describe('many records at once', () => {
  it('are read by hundreds, in their order, without those that are not there', async () => {
    const ids = (await list()).records.map(({ id }) => id);
    const wanted = [...ids, "no ' such", ...Array.from({ length: 500 }, (_, at) => `missing-${at}`), ids[0]!];
    const read = await crm.readMany('Deal', wanted, await indexed());
    expect(read.map(({ id }) => id)).toEqual([...ids, ids[0]]);
  });
});

/** Writes a field of a deal as a person at its page does. */
async function write(id: string, field: string, value: string): Promise<void> {
  const deal = await wholeDeal(id);
  await changeField(database(), { type: 'Deal', id, version: deal.version!, field, value }, CALLER);
}
/** The proof of the first deal that nothing stops. */
async function firstThatFiles(services: Services, deals: readonly { id: string }[]) {
  for (const { id } of deals) {
    const proof = await proofOf(services, id, 'glasshouse-quote', CALLER);
    if (proof.findings.every(({ severity }) => severity !== 'stops')) return proof;
  }
  throw new Error('Each of them is stopped by something.');
}
async function accountId(deal: string): Promise<string> {
  const { account } = (await wholeDeal(deal)).fields;
  return (account as unknown as { id: string }).id;
}
const ghost = () => ({
  source: 'crm',
  type: 'Deal',
  id: 'ghost',
  name: 'Ghost',
  number: '',
  account: '',
  stage: '',
  owner: '',
});
