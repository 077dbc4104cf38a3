import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { DocumentChange, WantedChange } from '../../core/production/document-change';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { documents, productions } from '../../server/db/schema';
import { openQueue, type Queue } from '../../server/jobs/queue';
import type { Caller } from '../../server/people/caller';
import { Press } from '../../server/press/press';
import { advance } from '../../server/productions/engine';
import { documentsInHand, dropOldProductions } from '../../server/productions/production';
import { proofDocument, proofParts } from '../../server/productions/proof';
import { readDocument } from '../../server/register';
import type { Services } from '../../server/services';
import { callerWith } from '../callers';
import { fileAs, filingOf, proofOf } from './produce';
import { openStack, until, type Stack } from './stack';

/** Documents that are otherwise than their templates, until they are filed. */
const TEMPLATE = 'glasshouse-quote';
const ME = callerWith();
const COLLEAGUE: Caller = { ...callerWith(), id: randomUUID(), name: 'Linus Hart' };
let stack: Stack;
let queue: Queue;
let press: Press;
const database = () => openDatabase().database;
const services = () => ({ database: database(), queue, press }) as unknown as Services;
const change = (what: DocumentChange): WantedChange => ({ id: randomUUID(), change: what, label: 'what it is' });

type Proof = Awaited<ReturnType<typeof proofOf>>;
async function goOn({ id, revision, record }: Proof, changes?: readonly WantedChange[], caller = ME): Promise<Proof> {
  const wanted = { templateId: TEMPLATE, recordId: record.id, choices: {}, changes, of: { id, revision } };
  const { bytes } = await proofDocument(services(), wanted, caller, { has: [], near: [1], encoding: 'identity' });
  return JSON.parse(Buffer.from(bytes).toString()) as Proof;
}
const first = (deal: string) => proofOf(services(), deal, TEMPLATE, ME);
const inHand = (deal: string, caller = ME) => documentsInHand(database(), { type: 'Deal', id: deal }, caller);

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

describe('what a template asks for', () => {
  const DELIVERY = 'delivery-note';
  const asked = (proof: Proof) =>
    proof.asks.map(({ path, given }) => [path, given, proof.fields[path]!.value, proof.fields[path]!.record]);

  it('is told with each proof, answered in it, and kept with what is filed', async () => {
    const begun = await proofOf(services(), 'D-1210', DELIVERY, ME);
    expect(asked(begun)).toEqual([
      ['ask.carrier', false, null, undefined],
      ['ask.packages', false, null, undefined],
    ]);
    const wanted = (value: string) => ({
      templateId: DELIVERY,
      recordId: 'D-1210',
      choices: {},
      changes: [change({ type: 'value', path: 'ask.packages', value })],
      of: { id: begun.id },
    });
    const sending = { has: [], near: [1], encoding: 'identity' as const };
    const { bytes } = await proofDocument(services(), wanted('12'), ME, sending);
    const said = JSON.parse(Buffer.from(bytes).toString()) as Proof;
    expect(asked(said)[1]).toEqual(['ask.packages', true, { number: '12' }, undefined]);
    expect(Object.values(said.values).map(({ text }) => text)).toContain('12');
    const { id } = await fileAs(services(), filingOf(said), ME);
    await advance(services(), id);
    const [row] = await database().select().from(documents).where(eq(documents.id, id));
    expect(row!.composition!.answers).toMatchObject([
      { value: null, given: false },
      { value: { number: '12' }, given: true },
    ]);
  });
});

describe('a document in hand', () => {
  it('keeps what was changed, with who and when, for whoever may go on with it', async () => {
    const begun = await first('D-1202');
    expect(begun).toMatchObject({ revision: 0, changes: [] });
    const [finding] = begun.findings;
    const given = change({ type: 'value', path: finding!.path!, value: '485.00' });
    const mine = await goOn(begun, [given]);
    expect(mine).toMatchObject({ id: begun.id, revision: 1 });
    expect(mine.findings.map(({ id }) => id)).not.toContain(finding!.id);
    expect(mine.changes).toMatchObject([{ ...given, by: ME.name }]);
    expect(mine.changed[given.id]!.length).toBeGreaterThan(0);

    expect(await inHand('D-1202', COLLEAGUE)).toMatchObject([
      { id: begun.id, changes: 1, by: ME.name, template: { id: TEMPLATE, kind: 'quote' } },
    ]);
    const { blocks } = await proofParts(services(), begun.id, COLLEAGUE);
    const words = blocks.find(({ mayBeLeftOut, texts }) => mayBeLeftOut && texts.length > 0)!;
    const theirs = await goOn(mine, [given, change({ type: 'leaveOut', block: words.id })], COLLEAGUE);
    expect(theirs.changes.map(({ by }) => by)).toEqual([ME.name, COLLEAGUE.name]);
    expect(await inHand('D-1202')).toMatchObject([{ changes: 2, by: COLLEAGUE.name }]);
  });

  it('is gone on with by one of two at once; the other is told, and nothing is lost', async () => {
    const begun = await first('D-1190');
    const { sections } = await proofParts(services(), begun.id, ME);
    const { id, prints } = sections[0]!;
    const mine = await goOn(begun, [change({ type: 'section', block: id, prints: !prints })]);
    const late = goOn({ ...mine, revision: 0 }, [], COLLEAGUE);
    await expect(late).rejects.toMatchObject({ status: 409, members: { reason: 'revised' } });
    const both = await Promise.allSettled([goOn(mine, mine.changes), goOn(mine, mine.changes)]);
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    const [row] = await database().select().from(productions).where(eq(productions.id, begun.id));
    expect(row).toMatchObject({ revision: 2, inHand: true });
  });

  it('is not anybody’s before something is changed, nor kept for long', async () => {
    const begun = await first('D-1193');
    await expect(goOn(begun, undefined, COLLEAGUE)).rejects.toMatchObject({ status: 404 });
    const changed = await goOn(begun, [change({ type: 'value', path: 'deal.order_number', value: 'PO-1' })]);
    await dropOldProductions(database(), Date.now() + 48 * 3_600_000);
    expect(await inHand('D-1193')).toHaveLength(1);
    expect(await goOn(changed, [])).toMatchObject({ changes: [] });
    expect(await inHand('D-1193')).toEqual([]);
    await dropOldProductions(database(), Date.now() + 48 * 3_600_000);
    await expect(goOn(changed)).rejects.toMatchObject({ status: 404 });
  });

  it('takes words and clauses, and no figures', async () => {
    const begun = await first('D-1196');
    const { blocks } = await proofParts(services(), begun.id, ME);
    const add = (content: Extract<DocumentChange, { type: 'add' }>['content']) =>
      goOn(begun, [change({ type: 'add', after: blocks[0]!.id, content })]);
    const typedOver = { type: 'value' as const, attrs: { id: 'v', formula: '1 + 1' } };
    await expect(add([{ type: 'paragraph', attrs: { id: 'p' }, content: [typedOver] }])).rejects.toMatchObject({
      status: 422,
    });
    await expect(add([{ type: 'clause', attrs: { id: 'c', clause: 'none' } }])).rejects.toMatchObject({ status: 422 });
    const added = await add([{ type: 'clause', attrs: { id: 'c', clause: 'complaints' } }]);
    expect(added.findings.filter(({ severity }) => severity === 'stops')).toEqual([]);
    const [row] = await database().select().from(productions).where(eq(productions.id, begun.id));
    expect(row!.choices.clauses).toMatchObject([{ id: 'complaints' }]);
  });
});

describe('filing a document in hand', () => {
  it('files what was looked at, keeps what was changed, and takes it out of hand', async () => {
    const begun = await first('D-1198');
    const given = change({ type: 'value', path: 'deal.order_number', value: 'PO-77' });
    const changed = await goOn(begun, [given]);
    const seen = filingOf(changed);
    const again = await goOn(changed);
    const stale = fileAs(services(), { ...seen, revision: changed.revision }, ME);
    await expect(stale).rejects.toMatchObject({ status: 409, members: { reason: 'revised' } });
    const { id } = await fileAs(services(), { ...filingOf(again), revision: again.revision }, COLLEAGUE);
    await stack.startWorker();
    await until(async () => {
      const [row] = await database().select().from(documents).where(eq(documents.id, id));
      return row!.state === 'filed';
    });
    await stack.stopWorkers();
    expect(await inHand('D-1198')).toEqual([]);
    const { document } = await readDocument(database(), id, ME);
    expect(document.changes).toMatchObject([{ label: 'what it is', by: ME.name }]);
    await expect(goOn(again, [])).rejects.toMatchObject({ status: 409 });
  });
});
