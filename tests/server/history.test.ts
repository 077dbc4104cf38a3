import { asc, min } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { history, type Act } from '../../demo/history';
import { demoRecords } from '../../demo/crm/index';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { documents, numbers, productions, templateVersions, trail } from '../../server/db/schema';
import { isToBeWritten, writeHistory, type Written } from '../../server/demo/history';
import { timesOf } from '../../server/demo/times';
import { openQueue } from '../../server/jobs/queue';
import { Press } from '../../server/press/press';
import { registeredFor } from '../../server/productions/registered';
import { openStack, type Stack } from './stack';

/** The history that the demo begins with. */
const TODAY = new Date('2027-03-01T06:00:00Z');
const weekday = (at: Date) => at.getUTCDay() >= 1 && at.getUTCDay() <= 5;

describe('the times of acts', () => {
  const days = Array.from(
    { length: 400 },
    (_, each) => new Date(Date.parse('2026-11-02T11:00:00Z') + each * 86_400_000),
  );

  it('lie before today, whenever that is, and after the records were created', () => {
    for (const today of days)
      for (const { act, at } of timesOf(history, today)) {
        expect(+at).toBeLessThan(+today);
        expect(at.toISOString().slice(0, 10) >= act.since).toBe(true);
      }
  });

  it('follow each other, those of one record in their order', () => {
    for (const today of days) {
      const timed = timesOf(history, today);
      expect(timed.map(({ at }) => +at)).toEqual(timed.map(({ at }) => +at).sort((one, other) => one - other));
      expect(new Set(timed.map(({ at }) => +at)).size).toBe(timed.length);
      const of = (acts: readonly Act[], record: string) => acts.filter((each) => each.record === record);
      const inOrder = timed.map(({ act }) => act);
      for (const { record } of history) expect(of(inOrder, record)).toEqual(of(history, record));
    }
  });

  it('are working hours of working days, but where a record was created at a weekend', () => {
    for (const { act, at } of timesOf(history, TODAY)) {
      expect(weekday(at) || weekday(new Date(act.since)) === false).toBe(true);
      expect(at.getUTCHours()).toBeGreaterThanOrEqual(9);
      expect(at.getUTCHours()).toBeLessThan(19);
    }
  });
});

describe('the history of the demo', () => {
  let stack: Stack;
  let written: Written;
  const database = () => openDatabase().database;
  const rows = () => database().select().from(documents).orderBy(asc(documents.createdAt));
  const of = async (record: string) => (await rows()).filter(({ recordId }) => recordId === record);

  beforeAll(async () => {
    stack = await openStack();
    written = { database: database(), queue: await openQueue(), press: new Press(2) };
    expect(await isToBeWritten(database(), history)).toBe(true);
    // It is ended in the midst of it, and taken up again.
    const first = timesOf(history, TODAY).slice(0, 12);
    await writeHistory(
      written,
      first.map(({ act }) => act),
      TODAY,
    );
    expect(await isToBeWritten(database(), history)).toBe(true);
    await writeHistory(written, history, TODAY);
  }, 120_000);
  afterAll(async () => {
    await written.queue.close();
    written.press.close();
    await closeDatabase();
    await stack.close();
  });

  it('is written once', async () => {
    expect(await isToBeWritten(database(), history)).toBe(false);
    const before = await rows();
    await writeHistory(written, history, TODAY);
    expect(await rows()).toEqual(before);
  });

  it('has templates that were published before anything was made from them', async () => {
    const [{ first }] = (await database()
      .select({ first: min(documents.createdAt) })
      .from(documents)) as [{ first: Date }];
    const versions = await database().select().from(templateVersions);
    expect(versions.length).toBeGreaterThan(0);
    expect(versions.filter(({ publishedAt }) => publishedAt >= first)).toEqual([]);
  });

  it('files everything but what was given up, on the days when it was done', async () => {
    const all = await rows();
    expect(all.filter(({ state }) => state === 'failed')).toMatchObject([{ recordId: 'D-1241' }]);
    expect(all.filter(({ state }) => state !== 'failed').every(({ state }) => state === 'filed')).toBe(true);
    for (const { createdAt, filedAt, issueDate, state } of all) {
      expect(createdAt.toISOString().slice(0, 10)).toBe(issueDate);
      expect(+createdAt).toBeLessThan(+TODAY);
      if (state === 'filed') expect(filedAt).toEqual(createdAt);
    }
    const tells = await database().select().from(trail);
    expect(tells.filter(({ act }) => act === 'filed').every(({ at }) => +at < +TODAY)).toBe(true);
  });

  it('takes numbers in the order of the days, without gaps, some of them in one year and some in the next', async () => {
    const all = await database().select().from(numbers);
    const series = [...new Set(all.map(({ seriesId, period }) => `${seriesId} ${period}`))];
    expect(new Set(all.map(({ period }) => period))).toEqual(new Set(['2026', '2027']));
    for (const each of series) {
      const its = all.filter(({ seriesId, period }) => `${seriesId} ${period}` === each);
      its.sort((one, other) => one.serial - other.serial);
      expect(its.map(({ serial }) => serial)).toEqual(its.map((_, index) => index + 1));
      expect(its.map(({ takenAt }) => +takenAt)).toEqual(its.map(({ takenAt }) => +takenAt).sort((a, b) => a - b));
    }
    expect(all.filter(({ state }) => state === 'void')).toHaveLength(1);
  });

  it('has revisions, each with a price of its own', async () => {
    const quotes = await of('D-1220');
    expect(quotes.map(({ revision, validity }) => [revision, validity])).toEqual([
      [0, 'superseded'],
      [1, 'superseded'],
      [2, 'current'],
    ]);
    const [first, second, third] = quotes.map(({ amount }) => Number(amount));
    expect(first).toBeGreaterThan(second!);
    expect(second).toBeGreaterThan(third!);
  });

  it('has what was voided and what was credited count no more', async () => {
    expect((await of('D-1245')).map(({ kind, validity }) => [kind, validity])).toEqual([
      ['invoice', 'void'],
      ['invoice', 'current'],
    ]);
    const [invoice, note, again] = await of('D-1246');
    expect([invoice!.kind, note!.kind, again!.kind]).toEqual(['invoice', 'credit note', 'invoice']);
    expect(Number(note!.amount)).toBe(Number(invoice!.amount));
    const known = await registeredFor(database(), { type: 'Deal', id: 'D-1246' }, TODAY);
    expect(known).toHaveLength(3);
  });

  it('leaves documents in hand', async () => {
    const kept = (await database().select().from(productions)).filter(({ inHand }) => inHand);
    expect(kept.map(({ recordId }) => recordId).sort()).toEqual(['D-1215', 'D-1248']);
    expect(kept.every(({ at }) => +at < +TODAY)).toBe(true);
  });

  it('leaves the CRM as it was, but for its files, activities and links to documents', async () => {
    const deal = (id: string) => demoRecords.deals.find((each) => each.id === id)!;
    for (const id of new Set(history.map(({ record }) => record))) {
      const { document_link: link, updated_at: _at, updated_by: _by, ...body } = await stack.recordInCrm('Deals', id);
      expect(body).toEqual(deal(id));
      expect(link === undefined || /^http/.test(String(link))).toBe(true);
    }
    for (const line of demoRecords.lineItems.filter(({ deal_id: id }) => ['D-1188', 'D-1220'].includes(id)))
      expect(await stack.recordInCrm('LineItems', line.id)).toMatchObject(line);
    // Files stand on the record as of the day when each was filed.
    const files = await stack.attachments('D-1262');
    const days = (await of('D-1262')).map(({ issueDate }) => issueDate);
    expect(files.map(({ created_at: at }) => at.toISOString().slice(0, 10))).toEqual(days);
  });
});
