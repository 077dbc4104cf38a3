import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { refreshIndex } from '../../server/records/record-index';
import { find } from '../../server/find';
import { openQueue, type Queue } from '../../server/jobs/queue';
import { usualRules } from '../../server/people/access';
import type { Caller } from '../../server/people/caller';
import { Press } from '../../server/press/press';
import { Problem } from '../../server/problem';

import { documentState, listDocuments, readDocument, registerFilters } from '../../server/register';
import type { Services } from '../../server/services';
import { listDrafts, openDraft, saveDraft } from '../../server/drafts';
import { listTemplates, templateWithSchema } from '../../server/templates';
import { readTrail } from '../../server/trail';
import { callerWith } from '../callers';
import { openStack, type Stack } from './stack';
import { fileAs, proofOf, requestFor } from './produce';

let stack: Stack;
let queue: Queue;
let press: Press;
const database = () => openDatabase().database;
const services = () => ({ database: database(), queue, press }) as unknown as Services;

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

const refusal = async (call: Promise<unknown>): Promise<string> => {
  const thrown: unknown = await call.catch((problem: unknown) => problem);
  expect(thrown).toBeInstanceOf(Problem);
  expect((thrown as Problem).status).toBe(403);
  return (thrown as Problem).detail;
};

const request = (deal: string, template: string, caller: Caller) => requestFor(services(), deal, template, caller);

describe('without finance', () => {
  it('no invoice is filed and no number of one is taken; with it, one is', async () => {
    const producer = callerWith('producer');
    const invoice = await request('D-1188', 'deposit-invoice', producer);
    expect(await refusal(fileAs(services(), invoice, producer))).toContain('takes the role finance');
    const query = { sort: 'created', descending: true, skip: 0, top: 10 };
    expect((await listDocuments(database(), query, producer)).total).toBe(0);
    const { id, number } = await fileAs(services(), invoice, callerWith('finance'));
    expect(number).toMatch(/-0001$/);
    const { entries } = await readTrail(database(), { subjectId: id, skip: 0, top: 5 });
    expect(entries[0]).toMatchObject({ act: 'filed', personName: 'Tamar Whitlow', subjectName: number });
  });
});

describe('the register', () => {
  it('is narrowed by person and days, and sums each kind for itself', async () => {
    const finance = callerWith('producer', 'finance');
    await fileAs(services(), await request('D-1188', 'glasshouse-quote', finance), finance);
    const query = { sort: 'created', descending: true, skip: 0, top: 10 };
    const total = async (more: object) => (await listDocuments(database(), { ...query, ...more }, finance)).total;
    const all = await total({});
    expect(all).toBeGreaterThan(1);
    expect(await total({ by: 'Tamar Whitlow', from: '2001-01-01', until: '2999-12-31' })).toBe(all);
    expect([await total({ by: 'Somebody' }), await total({ until: '2001-01-01' })]).toEqual([0, 0]);
    const { totals } = await listDocuments(database(), query, finance);
    expect(new Set(totals.map(({ kind, currency }) => `${kind} ${currency}`)).size).toBe(totals.length);
    expect(await registerFilters(database(), finance)).toMatchObject({
      kinds: expect.arrayContaining(['invoice', 'quote']) as unknown,
      people: ['Tamar Whitlow'],
    });
  });
});

describe('a kind that some roles alone may see', () => {
  const rules = { ...usualRules, kinds: { ...usualRules.kinds, quote: { see: ['finance' as const], act: [] } } };
  const hidden: Caller = { ...callerWith('producer', 'author'), rules };
  const seen: Caller = { ...callerWith('producer', 'finance'), rules };

  it('is in no list, is not found, and opens by no address', async () => {
    const { id, number } = await fileAs(services(), await request('D-1189', 'glasshouse-quote', seen), seen);
    const query = { sort: 'created', descending: true, skip: 0, top: 10 };
    const kinds = async (caller: Caller) =>
      (await listDocuments(database(), query, caller)).documents.map(({ kind }) => kind);
    expect(await kinds(seen)).toContain('quote');
    expect(await kinds(hidden)).not.toContain('quote');
    expect((await registerFilters(database(), seen)).kinds).toContain('quote');
    expect((await registerFilters(database(), hidden)).kinds).not.toContain('quote');
    expect((await find(database(), number, seen)).documents).toHaveLength(1);
    expect((await find(database(), number, hidden)).documents).toHaveLength(0);
    expect(await documentState(database(), id, hidden)).toBeUndefined();
    expect(await refusal(readDocument(database(), id, hidden))).toContain('takes the role finance');
    expect((await listTemplates(database(), hidden)).map(({ kind }) => kind)).not.toContain('quote');
    expect(await refusal(templateWithSchema(database(), 'glasshouse-quote', hidden))).toContain('finance');
    expect(await refusal(proofOf(services(), 'D-1188', 'glasshouse-quote', hidden))).toContain('finance');
    const { template } = await openDraft(services(), 'glasshouse-quote', seen);
    const change = { revision: 0, template };
    expect(await refusal(openDraft(services(), 'glasshouse-quote', hidden))).toContain('finance');
    expect(await refusal(saveDraft(services(), 'glasshouse-quote', change, hidden))).toContain('finance');
    await saveDraft(services(), 'glasshouse-quote', change, seen);
    expect((await listDrafts(database(), seen)).map(({ id }) => id)).toEqual(['glasshouse-quote']);
    expect(await listDrafts(database(), hidden)).toEqual([]);
  });
});

describe('a type of records that some roles alone may see', () => {
  it('is proofed, filed and found by those alone', async () => {
    const rules = { ...usualRules, records: { Deal: { see: ['finance' as const], act: [] } } };
    const hidden: Caller = { ...callerWith('producer'), rules };
    expect(await refusal(proofOf(services(), 'D-1188', 'glasshouse-quote', hidden))).toContain(
      'records of the type “Deal”',
    );
    await refreshIndex(database());
    expect((await find(database(), 'propagation', hidden)).records).toEqual([]);
    expect((await find(database(), 'propagation', callerWith('reader'))).records).not.toEqual([]);
    expect(
      (await listDocuments(database(), { sort: 'created', descending: true, skip: 0, top: 10 }, hidden)).total,
    ).toBe(0);
  });
});
