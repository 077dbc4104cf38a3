import { PDFDocument } from '@cantoo/pdf-lib';
import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { DocumentChange, WantedChange } from '../../core/production/document-change';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { documents, files, productions } from '../../server/db/schema';
import { putFile } from '../../server/files';
import { openQueue, type Queue } from '../../server/jobs/queue';
import type { Caller } from '../../server/people/caller';
import { Press } from '../../server/press/press';
import { advance } from '../../server/productions/engine';
import { documentsInHand, dropOldProductions, type Wanted } from '../../server/productions/production';
import { changedSinceProof, proofDocument, proofParts } from '../../server/productions/proof';
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
const lineInCrm = (id: string) => stack.recordInCrm('LineItems', id);
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

describe('a record that changes while a document is open', () => {
  const lookAgain = async ({ id, record }: Proof, written: Wanted['written'] = [], caller = ME): Promise<Proof> => {
    const wanted = { templateId: TEMPLATE, recordId: record.id, choices: {}, since: id, written };
    const { bytes } = await proofDocument(services(), wanted, caller, { has: [], near: [1], encoding: 'identity' });
    return JSON.parse(Buffer.from(bytes).toString()) as Proof;
  };
  const told = ({ findings }: Proof) => findings.find(({ id }) => id === 'changed since');

  it('is told until what it says is as it was, whichever of several looks finds it', async () => {
    const begun = await first('D-1204');
    const price = (value: string) => stack.changeInCrm('LineItems', 'D-1204-1', { unit_price: value });
    const { unit_price: before } = await lineInCrm('D-1204-1');
    expect(told(await lookAgain(begun))).toBeUndefined();
    expect(await changedSinceProof(services(), begun.id, ME)).toBe(false);
    await price('123.45');
    expect(await changedSinceProof(services(), begun.id, ME)).toBe(true);
    const seen = await lookAgain(begun);
    expect(told(seen)).toMatchObject({ severity: 'warns', title: 'The deal changed while this was open' });
    expect(told(seen)!.sentence).toMatch(/^Line 1, .+: unit price was \D\d.+ and is \D123\.45 now\./);
    expect(told(seen)!.values.length).toBeGreaterThan(0);
    expect(told(await lookAgain(seen))).toEqual(told(seen));
    // What is filed says so too, unless it was seen.
    await expect(fileAs(services(), { production: seen.id, skips: {} }, ME)).rejects.toMatchObject({ status: 422 });
    await price(String(before));
    expect(told(await lookAgain(seen))).toBeUndefined();
  });

  it('is no news to whoever wrote to it, nor where nothing that is printed changed', async () => {
    const begun = await first('D-1205');
    await stack.changeInCrm('LineItems', 'D-1205-1', { unit_price: '77.00' });
    const written = [{ path: 'deal.lines{D-1205-1}.unit_price', value: '77' }];
    const mine = await lookAgain(begun, written);
    expect(told(mine)).toBeUndefined();
    expect(told(await lookAgain(mine))).toBeUndefined();
    await stack.changeInCrm('Deals', 'D-1205', { stage: 'Negotiation' });
    expect(told(await lookAgain(mine))).toBeUndefined();
  });

  it('is told to a colleague who goes on with a document in hand', async () => {
    const begun = await first('D-1206');
    const given = change({ type: 'value', path: 'deal.order_number', value: 'PO-9' });
    const mine = await goOn(begun, [given]);
    await stack.changeInCrm('LineItems', 'D-1206-1', { quantity: '9' });
    const theirs = await goOn(mine, undefined, COLLEAGUE);
    expect(told(theirs)!.sentence).toContain('quantity was');
    // Neither is what was given for the document.
    expect(told(theirs)!.sentence).not.toContain('PO-9');
    expect(told(await goOn(theirs, undefined, ME))).toEqual(told(theirs));
  });
});

describe('files that are put into one document', () => {
  const SVG = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20"><path d="M0 0h9"/></svg>');
  const pdf = async (pages: number) => {
    const document = await PDFDocument.create();
    for (let page = 0; page < pages; page++) document.addPage();
    return document.save();
  };
  const keep = (bytes: Uint8Array) => putFile(services(), bytes);

  it('are kept with it: pictures among its words, PDFs at its end', async () => {
    const begun = await first('D-1199');
    const { blocks } = await proofParts(services(), begun.id, ME);
    const [drawing, plan] = await Promise.all([keep(SVG), keep(await pdf(2))]);
    const picture = { type: 'picture' as const, attrs: { id: 'p', file: drawing.sha256, width: 120, alt: 'The site' } };
    const joined = { ...change({ type: 'join', file: plan.sha256, counted: false }), label: 'Site plan.pdf' };
    const added = change({ type: 'add', after: blocks[0]!.id, content: [picture] });
    const changed = await goOn(begun, [added, joined]);
    expect(changed.annexes).toEqual([{ label: 'Site plan.pdf', sha256: plan.sha256, pages: 2 }]);
    expect(changed.findings.filter(({ severity }) => severity === 'stops')).toEqual([]);
    // Joined again, it is joined once.
    const again = change({ type: 'join', file: plan.sha256, counted: true });
    const counted = await goOn(changed, [...changed.changes, again]);
    expect(counted.changes.map(({ id }) => id)).toEqual([added.id, again.id]);

    const { id } = await fileAs(services(), filingOf(counted), ME);
    await advance(services(), id);
    const [file] = await database().select().from(files).where(eq(files.documentId, id));
    const filed = await PDFDocument.load(file!.bytes);
    expect(filed.getPageCount()).toBe(counted.pages.pages.length + 2);
  });

  it('are refused where they cannot stand, and where they are not here', async () => {
    const begun = await first('D-1200');
    const { blocks } = await proofParts(services(), begun.id, ME);
    const [drawing, plan] = await Promise.all([keep(SVG), keep(await pdf(1))]);
    const picture = (file?: string, formula?: string) =>
      change({
        type: 'add',
        after: blocks[0]!.id,
        content: [{ type: 'picture', attrs: { id: 'p', file, formula, width: 120, alt: '' } }],
      });
    const wrong = [
      picture(plan.sha256),
      picture(),
      picture(undefined, 'lines.picture'),
      picture('0'.repeat(64)),
      change({ type: 'join', file: drawing.sha256, counted: false }),
      change({ type: 'join', file: '0'.repeat(64), counted: false }),
    ];
    for (const each of wrong) await expect(goOn(begun, [each])).rejects.toMatchObject({ status: 422 });
    expect(await goOn(begun, [])).toMatchObject({ changes: [], annexes: [] });
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
