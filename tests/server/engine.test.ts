import { and, eq } from 'drizzle-orm';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { files, numbers, steps } from '../../server/db/schema';
import { openQueue, type Queue } from '../../server/jobs/queue';
import { PastBounds, USUAL } from '../../server/press/bounds';
import { Press } from '../../server/press/press';
import { advance } from '../../server/productions/engine';
import { dropOldProductions, productionInput } from '../../server/productions/production';
import { pauseAfter, QUIET } from '../../server/productions/steps/pause';
import { voidDocument } from '../../server/productions/ways-on';
import { readDocument } from '../../server/register';
import type { Services } from '../../server/services';
import { callerWith } from '../callers';
import { fileAs, proofOf, requestFor } from './produce';
import { openStack, type Stack } from './stack';

/** The steps themselves, in this process and one call at a time: no worker runs here. */
const CALLER = callerWith();
let stack: Stack;
let queue: Queue;
let press: Press;
const database = () => openDatabase().database;
const services = () => ({ database: database(), queue, press }) as unknown as Services;
const go = (id: string, given: Partial<Services> = {}) => advance({ ...services(), ...given }, id);
const goInPlaceOfLost = (id: string) => advance(services(), id, true);
const begun = async (deal: string) =>
  fileAs(services(), await requestFor(services(), deal, 'glasshouse-quote', CALLER), CALLER);
const shown = async (id: string) => (await readDocument(database(), id, CALLER)).document;
const stepsOf = (id: string) => database().select().from(steps).where(eq(steps.documentId, id)).orderBy(steps.position);
const attachStep = async (id: string) => (await stepsOf(id))[2]!;
const change = (id: string, values: Partial<typeof steps.$inferInsert>) =>
  database()
    .update(steps)
    .set(values)
    .where(and(eq(steps.documentId, id), eq(steps.kind, 'attach')));
const again = async (id: string) => {
  await change(id, { dueAt: new Date() });
  await go(id);
};

beforeAll(async () => {
  stack = await openStack();
  queue = await openQueue();
  press = new Press(1);
});
afterEach(() => stack.clearFaults());
afterAll(async () => {
  await queue.close();
  press.close();
  await closeDatabase();
  await stack.close();
});

describe('the steps of a document', () => {
  it('are taken in order, and a filed document has nothing left to do', async () => {
    const { id } = await begun('D-1188');
    expect((await stepsOf(id)).map(({ kind, state }) => [kind, state])).toEqual([
      ['number', 'done'],
      ['render', 'open'],
      ['attach', 'open'],
      // The deal is past the stages from which the quote would move it on.
      ['setFields', 'skipped'],
      ['activity', 'open'],
    ]);
    await go(id);
    const [, render, attach, , activity] = await stepsOf(id);
    expect(render).toMatchObject({ state: 'done', attempts: 1, answer: { pages: 2 } });
    expect(attach).toMatchObject({
      state: 'done',
      attempts: 1,
      answer: { attachment: (await shown(id)).attachmentId },
    });
    expect(activity).toMatchObject({ state: 'done', attempts: 1 });
    await go(id);
    expect((await stepsOf(id)).map(({ attempts }) => attempts)).toEqual([1, 1, 1, 0, 1]);
    await go('01900000-0000-7000-8000-00000000000f');
  });

  it('taken by two at once come to one file and one history', async () => {
    const { id } = await begun('D-1189');
    await Promise.all([go(id), go(id), go(id)]);
    await again(id);
    expect((await shown(id)).state).toBe('filed');
    expect(await stack.attachments('D-1189')).toHaveLength(1);
    const { history } = await readDocument(database(), id, CALLER);
    expect(history.map(({ kind }) => kind)).toEqual(['number taken', 'rendered', 'attached', 'filed', 'step']);
  });

  it('wait with growing pauses, and are not begun before their time', async () => {
    await stack.fault({ on: 'attach', kind: 'status', status: 503, times: 2 });
    const { id } = await begun('D-1190');
    await go(id);
    const first = await attachStep(id);
    expect(first).toMatchObject({ state: 'open', attempts: 1, reason: expect.stringContaining('503') as string });
    expect(first.unclearAt).toEqual(first.triedAt);
    await change(id, { dueAt: new Date(Date.now() + 60_000) });
    await go(id);
    expect((await attachStep(id)).attempts).toBe(1);
    await again(id);
    await again(id);
    expect(await attachStep(id)).toMatchObject({ state: 'done', attempts: 3, reason: null });
  });

  it('go on after a process that was lost in the middle, whose work may still turn up', async () => {
    const { id } = await begun('D-1193');
    await stack.fault({ on: 'attach', kind: 'status', status: 503, times: 1 });
    await go(id);
    const lostAt = new Date(Date.now() - 1_000);
    await change(id, { dueAt: null, triedAt: lostAt, unclearAt: null });
    await stack.fault({ on: 'attach', kind: 'status', status: 415, times: 1 });
    await goInPlaceOfLost(id);
    const step = await attachStep(id);
    expect(step).toMatchObject({ state: 'open', unclearAt: lostAt });
    expect(step.dueAt!.getTime()).toBe(lostAt.getTime() + QUIET);
  });

  it('end where the CRM refuses, with the number void and its sentence in the history', async () => {
    await stack.fault({ on: 'attach', kind: 'status', status: 415, times: 1 });
    const { id, number } = await begun('D-1196');
    await go(id);
    expect(await shown(id)).toMatchObject({ state: 'failed', reason: 'The CRM is out of order.' });
    expect(await database().select().from(numbers).where(eq(numbers.text, number))).toMatchObject([{ state: 'void' }]);
    await go(id);
    expect((await attachStep(id)).attempts).toBe(1);
  });

  it('end where the kept file is not what was set', async () => {
    await stack.fault({ on: 'attach', kind: 'status', status: 503, times: 1 });
    const { id } = await begun('D-1198');
    await go(id);
    await database()
      .update(files)
      .set({ bytes: Buffer.from('%PDF-') })
      .where(eq(files.documentId, id));
    await change(id, { unclearAt: null });
    await again(id);
    expect(await shown(id)).toMatchObject({ state: 'failed', reason: 'The stored PDF is not what was rendered.' });
  });

  it('end where a page takes too much memory, and wait where it takes too long or the press is lost', async () => {
    const failing = (problem: Error) => ({ press: { print: () => Promise.reject(problem) } as unknown as Press });
    const { id } = await begun('D-1201');
    const renderStep = async () => (await stepsOf(id))[1]!;
    const early = () =>
      database()
        .update(steps)
        .set({ dueAt: new Date() })
        .where(and(eq(steps.documentId, id), eq(steps.kind, 'render')));
    await go(id, failing(new Error('The press ended.')));
    expect((await renderStep()).reason).toBe('Something that passes is in the way; the log says more.');
    await early();
    await go(id, failing(new PastBounds('time', USUAL)));
    expect((await renderStep()).reason).toContain('This takes longer than 20 seconds to set');
    await early();
    await go(id, failing(new PastBounds('memory', USUAL)));
    expect(await shown(id)).toMatchObject({ state: 'failed' });
    expect((await shown(id)).reason).toContain('more than 512 MB of memory');
  });

  it('look for a file of another hash under their name, and say so', async () => {
    await stack.fault({ on: 'attach', kind: 'page', times: 1 });
    const { id } = await begun('D-1207');
    await go(id);
    const { fileName } = await shown(id);
    await stack.changeAttachment('D-1207', fileName, 'another hash');
    await again(id);
    expect((await shown(id)).reason).toContain('another file under this document’s name');
  });
});

describe('a document that shall be void', () => {
  it('is so at once where its file was never sent', async () => {
    const { id } = await begun('D-1209');
    await stack.fault({ on: 'read', kind: 'status', status: 503, times: 8 });
    await go(id);
    expect((await shown(id)).state).toBe('preparing');
    await voidDocument(services(), id, 'Not needed.', CALLER);
    await go(id);
    expect(await shown(id)).toMatchObject({ state: 'failed', reason: 'Not needed.' });
  });

  it('is left to the call that searches its record already', async () => {
    await stack.fault({ on: 'attach', kind: 'status', status: 503, times: 1 });
    const { id } = await begun('D-1211');
    await go(id);
    await voidDocument(services(), id, 'Not needed.', CALLER);
    const old = new Date(Date.now() - QUIET - 1_000);
    await change(id, { unclearAt: old, dueAt: null });
    await go(id);
    expect(await attachStep(id)).toMatchObject({ attempts: 1, unclearAt: old, dueAt: null });
    await again(id);
    expect(await shown(id)).toMatchObject({ state: 'failed', reason: 'Not needed.' });
  });

  it('waits on while the record cannot be searched', async () => {
    await stack.fault({ on: 'attach', kind: 'status', status: 503, times: 1 });
    const { id } = await begun('D-1210');
    await go(id);
    await voidDocument(services(), id, 'Not needed.', CALLER);
    const old = new Date(Date.now() - QUIET - 1_000);
    await change(id, { unclearAt: old });
    await stack.fault({ on: 'read', kind: 'status', status: 503, times: 8 });
    await again(id);
    expect(await attachStep(id)).toMatchObject({ state: 'open', unclearAt: old });
    await stack.clearFaults();
    await again(id);
    expect((await shown(id)).state).toBe('failed');
  });
});

describe('productions', () => {
  it('are dropped after a day, unless something was filed from them', async () => {
    const proof = await proofOf(services(), 'D-1211', 'glasshouse-quote', CALLER);
    const { id } = await begun('D-1211');
    await dropOldProductions(database(), Date.now() + 25 * 3_600_000);
    expect(await refusalOf(fileAs(services(), { production: proof.id, skips: {} }, CALLER))).toBe(404);
    await go(id);
    expect((await shown(id)).state).toBe('filed');
  });

  it('of a version that is gone are told as a fault', async () => {
    const production = { templateVersionId: '01900000-0000-7000-8000-00000000000f', choices: {} };
    await expect(productionInput(database(), production as never)).rejects.toThrow('is gone');
  });

  it('of an older version of the template are not filed', async () => {
    const request = await requestFor(services(), 'D-1187', 'glasshouse-quote', CALLER);
    await stack.republish('glasshouse-quote');
    expect(await refusalOf(fileAs(services(), request, CALLER))).toBe(409);
  });
});

it('pauses grow from half a second to ten minutes, and are never shorter than what the other side asks', () => {
  const middle = (attempts: number, asked?: number) => pauseAfter(attempts, asked, () => 0.5);
  expect([1, 2, 3, 10, 12, 40].map((each) => middle(each))).toEqual([500, 1_000, 2_000, 256_000, 600_000, 600_000]);
  expect(middle(1, 7_000)).toBe(7_000);
  expect([pauseAfter(1, 0, () => 0), pauseAfter(1, 0, () => 1)]).toEqual([375, 625]);
});

async function refusalOf(doing: Promise<unknown>): Promise<number> {
  const thrown: unknown = await doing.then(
    () => undefined,
    (problem: unknown) => problem,
  );
  return (thrown as { status: number }).status;
}
