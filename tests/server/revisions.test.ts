import fc from 'fast-check';
import { eq } from 'drizzle-orm';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { documents, numbers } from '../../server/db/schema';
import { openQueue, type Queue } from '../../server/jobs/queue';
import { Press } from '../../server/press/press';
import { advance } from '../../server/productions/engine';
import { registeredFor } from '../../server/productions/registered';
import { voidDocument } from '../../server/productions/ways-on';
import { listDocuments, readDocument } from '../../server/register';
import type { Services } from '../../server/services';
import { callerWith } from '../callers';
import { propertyRuns } from '../property-runs';
import { fileAs, filingOf, proofOf, requestFor } from './produce';
import { openStack, until, type Stack } from './stack';

/** Revisions of what is filed again, what becomes void, and what is credited; in this process and one call at a time. */
const CALLER = callerWith();
const QUOTE = 'glasshouse-quote';
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
afterEach(() => stack.clearFaults());
afterAll(async () => {
  await queue.close();
  press.close();
  await closeDatabase();
  await stack.close();
});

async function filed(deal: string, template = QUOTE, choices = {}) {
  const accepted = await fileAs(services(), await requestFor(services(), deal, template, CALLER, choices), CALLER);
  await advance(services(), accepted.id);
  return accepted;
}
const shown = async (id: string) => (await readDocument(database(), id, CALLER)).document;
const historyOf = async (id: string) =>
  (await readDocument(database(), id, CALLER)).history.map(({ sentence }) => sentence);

describe('a quote that is filed again', () => {
  it('is the next revision of its number, which supersedes the one before once it is filed', async () => {
    const first = await filed('D-1188');
    const proof = await proofOf(services(), 'D-1188', QUOTE, CALLER);
    expect(proof.revises).toEqual({
      id: first.id,
      number: first.number,
      next: `${first.number} rev. B`,
      asNew: false,
      replaces: true,
    });
    expect(proof.title).toContain(`${first.number} rev. B`);
    const second = await fileAs(services(), filingOf(proof), CALLER);
    expect(second.number).toBe(`${first.number} rev. B`);
    expect((await shown(first.id)).validity).toBe('current');
    await advance(services(), second.id);
    expect(await shown(first.id)).toMatchObject({
      state: 'filed',
      validity: 'superseded',
      supersededBy: { id: second.id, number: second.number },
    });
    expect(await historyOf(first.id)).toContain(`Superseded by ${second.number}.`);
    expect(await shown(second.id)).toMatchObject({
      validity: 'current',
      revises: { id: first.id, number: first.number },
      fileName: expect.stringContaining('rev. B') as string,
    });
    expect((await filed('D-1188')).number).toBe(`${first.number} rev. C`);
    // One file on the deal, with what it was before.
    const [file, ...others] = await stack.attachments('D-1188');
    expect(others).toEqual([]);
    expect(file).toMatchObject({ name: expect.stringContaining('rev. C') as string, revision: 3 });
    expect(await historyOf(second.id)).toContainEqual(
      expect.stringMatching(/as the next revision of the file before it\.$/),
    );
    const { totals } = await listDocuments(
      database(),
      { recordType: 'Deal', recordId: 'D-1188', sort: 'created', descending: true, skip: 0, top: 9 },
      CALLER,
    );
    // Only the last one counts.
    expect(totals).toEqual([{ kind: 'quote', currency: 'GBP', amount: (await shown(second.id)).amount }]);
  });

  it('is a new file on the deal where the one before is not there any more', async () => {
    await filed('D-1210');
    await stack.deleteAttachments('D-1210');
    const second = await filed('D-1210');
    expect(await stack.attachments('D-1210')).toMatchObject([
      { name: expect.stringContaining('rev. B') as string, revision: 1 },
    ]);
    expect((await shown(second.id)).state).toBe('filed');
  });

  it('takes the place of its file once, though the CRM’s answer is lost', async () => {
    await filed('D-1212');
    await stack.fault({ on: 'attach', kind: 'drop-after', times: 1 });
    const second = await filed('D-1212');
    expect((await shown(second.id)).state).toBe('rendered');
    await until(async () => {
      await advance(services(), second.id);
      return (await shown(second.id)).state === 'filed';
    });
    expect(await stack.attachments('D-1212')).toMatchObject([{ revision: 2 }]);
  });

  it('takes a number of its own where that is asked for, and of another kind always', async () => {
    const first = await filed('D-1189');
    const other = await filed('D-1189', QUOTE, { asNew: true });
    expect(other.number).toMatch(/^Q-\d{4}-\d{4}$/);
    expect(other.number).not.toBe(first.number);
    expect((await shown(first.id)).validity).toBe('current');
    expect((await filed('D-1189', 'order-confirmation')).number).toMatch(/^O-\d{4}-\d{4}$/);
  });

  it('by two at once is filed by one; the other is told, and nothing of theirs is filed', async () => {
    const requests = await Promise.all([1, 2].map(() => requestFor(services(), 'D-1190', QUOTE, CALLER)));
    const outcome = async () => {
      const all = await Promise.allSettled(requests.map((request) => fileAs(services(), request, CALLER)));
      return all.map((each) => (each.status === 'fulfilled' ? 'filed' : (each.reason as { title: string }).title));
    };
    expect((await outcome()).sort()).toEqual(['Somebody else filed meanwhile', 'filed']);
    const [first] = await database().select().from(documents).where(eq(documents.recordId, 'D-1190'));
    // While it is on its way, its next revision waits.
    const early = await proofOf(services(), 'D-1190', QUOTE, CALLER);
    await expect(fileAs(services(), filingOf(early), CALLER)).rejects.toMatchObject({
      title: 'The document before it is still being filed',
    });
    await advance(services(), first!.id);
    requests.splice(0, 2, filingOf(early), await requestFor(services(), 'D-1190', QUOTE, CALLER));
    expect((await outcome()).sort()).toEqual(['Somebody else filed meanwhile', 'filed']);
    const all = await database().select().from(documents).where(eq(documents.recordId, 'D-1190'));
    expect(all.map(({ revision }) => revision).sort()).toEqual([0, 1]);
  });

  it('and is refused for good leaves the number to the one before', async () => {
    const first = await filed('D-1196');
    await stack.fault({ on: 'attach', kind: 'status', status: 422, times: 1 });
    const second = await filed('D-1196');
    expect(await shown(second.id)).toMatchObject({ state: 'failed' });
    expect(await shown(first.id)).toMatchObject({ validity: 'current', supersededBy: null });
    expect(await database().select().from(numbers).where(eq(numbers.text, first.number))).toMatchObject([
      { state: 'taken' },
    ]);
    expect((await filed('D-1196')).number).toBe(`${first.number} rev. C`);
  });
});

describe('what is void after it was filed', () => {
  it('counts no more, stays readable, and what is filed next begins anew', async () => {
    const first = await filed('D-1198');
    await voidDocument(services(), first.id, 'No.', CALLER);
    expect(await shown(first.id)).toMatchObject({
      state: 'filed',
      validity: 'void',
      voided: { reason: 'No.', by: CALLER.name },
    });
    await expect(voidDocument(services(), first.id, 'Twice.', CALLER)).rejects.toMatchObject({ status: 409 });
    expect(await registeredFor(database(), { type: 'Deal', id: 'D-1198' }, new Date(Date.now() + 1_000))).toEqual([]);
    expect((await filed('D-1198')).number).not.toContain('rev.');
  });

  it('is no invoice that a credit note takes off already, until that one is void', async () => {
    const invoice = await filed('D-1201', 'deposit-invoice');
    expect(invoice.number).toMatch(/^I-/);
    const note = await filed('D-1201', 'credit-note');
    await expect(voidDocument(services(), invoice.id, 'Wrong.', CALLER)).rejects.toMatchObject({
      title: 'The invoice was credited',
      detail: expect.stringContaining(note.number) as string,
    });
    await voidDocument(services(), note.id, 'Wrong one.', CALLER);
    await voidDocument(services(), invoice.id, 'Wrong.', CALLER);
    expect((await shown(invoice.id)).validity).toBe('void');
  });
});

/**
 * Histories of one deal of a single line, 17 pieces at 20 %, held against a small model of its own: what each document is called, what
 * it comes to, and whether it counts. Prices are whole pounds, so that nothing is rounded.
 */
describe('any history', () => {
  const DEAL = 'D-1209';
  const LINE = 'D-1209-1';
  interface Expected {
    number: string;
    kind: string;
    amount: number;
    validity: string;
  }
  const ACTS = ['quote', 'quote', 'two at once', 'invoice', 'credit', 'void quote', 'void money', 'price'] as const;

  class Model {
    readonly all: Expected[] = [];
    price = 286;
    #serials: Record<string, number> = {};

    constructor(serials: Record<string, number>) {
      this.#serials = serials;
    }
    current = (kind: string) => this.all.findLast((each) => each.kind === kind && each.validity === 'current');
    #next(letter: string): string {
      this.#serials[letter] = (this.#serials[letter] ?? 0) + 1;
      const year = new Date().getFullYear();
      return `${letter}-${year}-${String(this.#serials[letter]).padStart(4, '0')}`;
    }
    file(kind: string, letter: string, amount: number): Expected {
      const before = kind === 'quote' ? this.current(kind) : undefined;
      const base = before?.number.replace(/ rev\..*/, '');
      const revisions = this.all.filter(({ number }) => base !== undefined && number.startsWith(base)).length;
      const number = base === undefined ? this.#next(letter) : `${base} rev. ${String.fromCharCode(65 + revisions)}`;
      if (before) before.validity = 'superseded';
      const filedNow = { number, kind, amount, validity: 'current' };
      this.all.push(filedNow);
      return filedNow;
    }
    get total(): number {
      return 17 * this.price * 1.2;
    }
    /** What is asked and neither credited nor void. */
    get open(): number {
      const sum = (kind: string) =>
        this.all
          .filter((each) => each.kind === kind && each.validity === 'current')
          .reduce((all, { amount }) => all + amount, 0);
      return sum('invoice') - sum('credit note');
    }
  }

  const serialOf = async (series: string) =>
    (await database().select().from(numbers).where(eq(numbers.seriesId, series))).length;

  async function act(model: Model, what: (typeof ACTS)[number]): Promise<void> {
    switch (what) {
      case 'quote':
        model.file('quote', 'Q', model.total);
        await filed(DEAL);
        return;
      case 'two at once': {
        const requests = await Promise.all([1, 2].map(() => requestFor(services(), DEAL, QUOTE, CALLER)));
        const all = await Promise.allSettled(requests.map((request) => fileAs(services(), request, CALLER)));
        const [won, ...others] = all.flatMap((each) => (each.status === 'fulfilled' ? each.value : []));
        expect(others).toEqual([]);
        model.file('quote', 'Q', model.total);
        await advance(services(), won!.id);
        return;
      }
      case 'invoice':
        // A second deposit needs the first one credited.
        if (model.open > 0) return;
        model.file('invoice', 'I', model.total * 0.3);
        await filed(DEAL, 'deposit-invoice');
        return;
      case 'credit':
        if (model.open === 0) return;
        model.file('credit note', 'C', model.open);
        await filed(DEAL, 'credit-note');
        return;
      case 'void quote':
      case 'void money': {
        const credit = model.current('credit note');
        const found = what === 'void quote' ? model.current('quote') : (credit ?? model.current('invoice'));
        if (!found) return;
        const [row] = await database().select().from(documents).where(eq(documents.number, found.number));
        await voidDocument(services(), row!.id, 'Another course.', CALLER);
        found.validity = 'void';
        return;
      }
      case 'price':
        model.price = model.price === 400 ? 250 : 400;
        await stack.changeInCrm('LineItems', LINE, { unit_price: `${model.price}.00` });
    }
  }

  it('follows the model: numbers, revisions, what counts, and amounts', async () => {
    const [Q, I, C] = await Promise.all(['quote', 'invoice', 'credit'].map(serialOf));
    const model = new Model({ Q: Q!, I: I!, C: C! });
    await fc.assert(
      fc.asyncProperty(fc.array(fc.constantFrom(...ACTS), { minLength: 3, maxLength: 8 }), async (acts) => {
        for (const each of acts) await act(model, each);
        const rows = await database()
          .select()
          .from(documents)
          .where(eq(documents.recordId, DEAL))
          .orderBy(documents.createdAt);
        expect(
          rows.map(({ number, kind, amount, validity }) => ({ number, kind, amount: Number(amount), validity })),
        ).toEqual(model.all.map((each) => ({ ...each, amount: expect.closeTo(each.amount, 2) as number })));
        expect(rows.every(({ state }) => state === 'filed')).toBe(true);
        const sums = await listDocuments(
          database(),
          { recordType: 'Deal', recordId: DEAL, kind: 'invoice', sort: 'created', descending: true, skip: 0, top: 1 },
          CALLER,
        );
        const invoiced = model.all.filter(({ kind, validity }) => kind === 'invoice' && validity === 'current');
        expect(Number(sums.totals[0]?.amount ?? 0)).toBeCloseTo(
          invoiced.reduce((sum, { amount }) => sum + amount, 0),
          2,
        );
      }),
      // A history goes on where the one before it ended, so it cannot be told again in shorter.
      { numRuns: propertyRuns(8), endOnFailure: true },
    );
    for (const [series, letter] of [
      ['quote', 'Q'],
      ['invoice', 'I'],
      ['credit', 'C'],
    ] as const) {
      const taken = await database().select().from(numbers).where(eq(numbers.seriesId, series)).orderBy(numbers.serial);
      expect(taken.map(({ serial, text }) => [serial, text.startsWith(letter)])).toEqual(
        taken.map((_, at) => [at + 1, true]),
      );
    }
  });
});
