import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { doneAt } from '../../server/clock';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { documents, series } from '../../server/db/schema';
import { openQueue, type Queue } from '../../server/jobs/queue';
import { Press } from '../../server/press/press';
import { advance } from '../../server/productions/engine';
import { proofDocument } from '../../server/productions/proof';
import { firstNumbers, listSeries, removeSeries, setUpSeries } from '../../server/productions/series';
import type { Services } from '../../server/services';
import { callerWith } from '../callers';
import { fileAs, filingOf, proofOf, requestFor } from './produce';
import { openStack, type Stack } from './stack';

/** The day that a document is issued on: today, or one before it that its series allows. */
const CALLER = callerWith();
const QUOTE = 'glasshouse-quote';
let stack: Stack;
let queue: Queue;
let press: Press;
const database = () => openDatabase().database;
const services = () => ({ database: database(), queue, press }) as unknown as Services;
const on = <T>(day: string, act: () => Promise<T>) => doneAt(new Date(`${day}T10:00:00Z`), act);
const proof = (deal: string, choices = {}, template = QUOTE) => proofOf(services(), deal, template, CALLER, choices);
async function filed(deal: string, choices = {}, template = QUOTE) {
  const { id } = await fileAs(services(), await requestFor(services(), deal, template, CALLER, choices), CALLER);
  await advance(services(), id);
  const [row] = await database().select().from(documents).where(eq(documents.id, id));
  return row!;
}

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

describe('the day of issue', () => {
  it('is today, or one of the days before it that the series allows', async () => {
    await on('2026-12-20', async () => {
      expect(await proof('D-1188')).toMatchObject({
        issueDate: '2026-12-20',
        issueDates: { from: '2026-12-06', until: '2026-12-20' },
        choices: {},
      });
      const chosen = await proof('D-1188', { issueDate: '2026-12-14' });
      expect(chosen).toMatchObject({ issueDate: '2026-12-14', choices: { issueDate: '2026-12-14' } });
      expect(Object.values(chosen.values).map(({ text }) => text)).toContain('14 December 2026');
      // Today is no choice of its own.
      expect((await proof('D-1188', { issueDate: '2026-12-20' })).choices).toEqual({});
      for (const issueDate of ['2026-12-05', '2026-12-21'])
        await expect(proof('D-1188', { issueDate })).rejects.toMatchObject({
          status: 422,
          detail: 'Choose a day from 2026-12-06 to 2026-12-20: its numbers follow the days.',
        });
    });
  });

  it('is never before what was issued last in the series', async () => {
    await on('2026-12-20', async () => {
      const first = await filed('D-1188', { issueDate: '2026-12-14' });
      expect(first).toMatchObject({ number: 'Q-2026-0001', issueDate: '2026-12-14', state: 'filed' });
      expect((await proof('D-1189')).issueDates.from).toBe('2026-12-14');
      // Of another series it does not matter.
      expect((await proof('D-1211', {}, 'full-proposal')).issueDates.from).toBe('2026-12-06');
      // A later revision is no earlier, either.
      await filed('D-1188', { issueDate: '2026-12-16' });
      expect((await proof('D-1188')).issueDates.from).toBe('2026-12-16');
    });
  });

  it('that was chosen and is filed too late is refused, and nothing is filed', async () => {
    await on('2026-12-20', async () => {
      const late = await proof('D-1189', { issueDate: '2026-12-17' });
      await filed('D-1220', { issueDate: '2026-12-19' });
      await expect(fileAs(services(), filingOf(late), CALLER)).rejects.toMatchObject({
        status: 422,
        detail: 'Choose a day from 2026-12-19 to 2026-12-20: its numbers follow the days.',
      });
      expect(await database().select().from(documents).where(eq(documents.recordId, 'D-1189'))).toEqual([]);
      // The number that was not taken is the next one's.
      expect((await filed('D-1190')).number).toBe('Q-2026-0003');
    });
  });

  it('may lie in the year before, whose numbers go on', async () => {
    await on('2027-01-04', async () => {
      expect((await filed('D-1191', { issueDate: '2026-12-30' })).number).toBe('Q-2026-0004');
      expect((await filed('D-1192')).number).toBe('Q-2027-0001');
      expect((await proof('D-1193')).issueDates).toEqual({ from: '2027-01-04', until: '2027-01-04' });
    });
  });

  it('of a document in hand gives way to today, once it is not possible any more', async () => {
    const goOn = async ({ id }: { id: string }) => {
      const wanted = { templateId: QUOTE, recordId: 'D-1194', choices: {}, of: { id } };
      const sending = { has: [], near: [1], encoding: 'identity' as const };
      const { bytes } = await proofDocument(services(), wanted, CALLER, sending);
      return JSON.parse(Buffer.from(bytes).toString()) as Awaited<ReturnType<typeof proof>>;
    };
    const begun = await on('2027-01-10', () => proof('D-1194', { issueDate: '2027-01-08' }));
    expect(await on('2027-01-11', () => goOn(begun))).toMatchObject({ issueDate: '2027-01-08' });
    await on('2027-01-11', () => filed('D-1195'));
    expect(await on('2027-01-11', () => goOn(begun))).toMatchObject({ issueDate: '2027-01-11', choices: {} });
  });

  it('is today alone where the series allows no other', async () => {
    await database().update(series).set({ backdatedDays: 0 }).where(eq(series.id, 'order'));
    await on('2027-02-01', async () => {
      await expect(proof('D-1245', { issueDate: '2027-01-31' }, 'order-confirmation')).rejects.toMatchObject({
        detail: 'Its numbers follow the days, so it is issued today, 2027-02-01.',
      });
    });
  });
});

describe('a number series', () => {
  const NAMES = { label: 'Framework quotes', formula: '"F-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(3)' };
  const setUp = (id: string, more: object = {}) =>
    setUpSeries(database(), id, { ...NAMES, backdatedDays: 5, ...more }, CALLER);
  const one = async (id: string) => (await listSeries(database())).find((each) => each.id === id);

  it('is set up, tells its next number, is changed, and goes while nothing was numbered by it', async () => {
    const year = new Date().getFullYear();
    await setUp('framework');
    expect(await one('framework')).toMatchObject({ ...NAMES, backdatedDays: 5, next: `F-${year}-001`, taken: 0 });
    await setUp('framework', { formula: '"FQ-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(2)' });
    expect((await one('framework'))!.next).toBe(`FQ-${year}-01`);
    await removeSeries(database(), 'framework', CALLER);
    expect(await one('framework')).toBeUndefined();
    await expect(removeSeries(database(), 'framework', CALLER)).rejects.toMatchObject({ status: 404 });
  });

  it('allows as many days before today as it says, from then on', async () => {
    await on('2026-12-28', async () => {
      await setUp('quote', {
        label: 'Quotes',
        formula: '"Q-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(4)',
        backdatedDays: 2,
      });
      expect((await proof('D-1190')).issueDates.from >= '2026-12-26').toBe(true);
    });
  });

  it('is refused with what gives a number twice, and with the numbers of another one', async () => {
    await expect(setUp('mine', { formula: '"M-" & SERIAL(4)' })).rejects.toMatchObject({
      status: 422,
      detail: expect.stringContaining('in two years') as string,
    });
    const like = { formula: '"O-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(4)' };
    await expect(setUp('mine', like)).rejects.toMatchObject({
      status: 409,
      detail: expect.stringContaining('“Order confirmations” has O-') as string,
    });
    expect(await one('mine')).toBeUndefined();
    expect(firstNumbers('"M-" & SERIAL(4)')).toMatchObject({
      numbers: ['M-0001', 'M-0002', 'M-0003'],
      fault: expect.any(String) as string,
    });
    expect(firstNumbers('1 +')).toMatchObject({ numbers: [], fault: expect.any(String) as string });
  });

  it('stays while templates or numbers are of it', async () => {
    await expect(removeSeries(database(), 'letter', CALLER)).rejects.toMatchObject({
      status: 409,
      title: 'Templates take their numbers from it',
    });
    await filed('D-1192');
    await expect(removeSeries(database(), 'quote', CALLER)).rejects.toMatchObject({
      title: 'Numbers were taken from it',
    });
  });
});
