import { execFileSync } from 'node:child_process';
import { once } from 'node:events';
import { connect, createServer, type AddressInfo } from 'node:net';
import { and, eq } from 'drizzle-orm';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { changeField } from '../../server/change';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { documents, files, numbers, steps } from '../../server/db/schema';
import { refreshIndex } from '../../server/records/record-index';
import { listRecords, recordSummary, wholeRecord } from '../../server/records/record-list';
import { SourceError } from '../../server/records/source';
import { registeredFor } from '../../server/productions/registered';
import { templatesFor } from '../../server/productions/templates-for';
import { tryAgain, voidDocument } from '../../server/productions/ways-on';
import { openQueue, type Queue } from '../../server/jobs/queue';
import { Press } from '../../server/press/press';
import { Problem } from '../../server/problem';
import { listDocuments, readDocument, readFile } from '../../server/register';
import type { Services } from '../../server/services';
import { callerWith } from '../callers';
import type { Fault } from '../../standins/faults';
import { fileAs, proofOf, requestFor as request } from './produce';
import { openStack, until, type Stack } from './stack';

const TEMPLATE = 'glasshouse-quote';
let stack: Stack;
let queue: Queue;
let press: Press;

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

const CALLER = callerWith();
const database = () => openDatabase().database;
const wholeDeal = async (id: string) => {
  const { record: deal, schema } = await wholeRecord({ type: 'Deal', id }, CALLER);
  return { deal, schema };
};
const services = () => ({ database: database(), queue, press }) as unknown as Services;
const proof = (dealId: string) => proofOf(services(), dealId, TEMPLATE, CALLER);
const register = (top = 1) => listDocuments(database(), { sort: 'created', descending: true, skip: 0, top }, CALLER);

const requestFor = (dealId: string) => request(services(), dealId, TEMPLATE, CALLER);
const file = async (dealId: string) => fileAs(services(), await requestFor(dealId), CALLER);
const stored = async (id: string) => (await database().select().from(documents).where(eq(documents.id, id)))[0]!;
const reasonOf = async (id: string) => (await readDocument(database(), id, CALLER)).document.reason;
const untilFiled = (id: string) => until(async () => (await stored(id)).state === 'filed');

async function problemOf(doing: Promise<unknown>): Promise<Problem> {
  const thrown: unknown = await doing.then(
    () => undefined,
    (problem: unknown) => problem,
  );
  expect(thrown).toBeInstanceOf(Problem);
  return thrown as Problem;
}

describe('the connector', () => {
  it('reads types, labels, units and allowed values from the CRM’s metadata', async () => {
    const { schema, deal } = await wholeDeal('D-1188');
    expect(schema.types.Deal!.fields.order_number).toMatchObject({ label: 'Purchase-order number', type: 'text' });
    expect(schema.types.Deal!.fields.site_works!.type).toBe('choices');
    expect(deal.fields.deposit_percent).toEqual({ percent: '0.3' });
    expect(deal.fields.amount).toEqual({ amount: '96665.6', currency: 'GBP' });
  });

  it('follows the pages of a long relation', async () => {
    const { deal } = await wholeDeal('D-1203');
    const lines = deal.fields.lines as unknown as { id: string }[];
    expect(lines.map(({ id }) => id)).toEqual(Array.from({ length: 140 }, (_, index) => `D-1203-${index + 1}`));
  });

  it('pages, sorts, filters and searches deals, apostrophes and all', async () => {
    await refreshIndex(database());
    const query = { view: 'all', sort: 'amount', descending: true, skip: 0, top: 3 } as const;
    const { records: deals, total } = await listRecords(database(), 'Deal', query, CALLER);
    expect([deals.length, total]).toEqual([3, 81]);
    expect(deals[0]!.id).toBe('D-1256');
    const found = async (search: string) =>
      (await listRecords(database(), 'Deal', { ...query, search }, CALLER)).records.map(({ id }) => id);
    expect(await found('hoshino')).toEqual(['D-1195']);
    expect(await found('النور')).toEqual(['D-1192', 'D-1218']);
    expect(await found("' or 1 eq 1")).toEqual([]);
    expect((await listRecords(database(), 'Deal', { ...query, stage: 'Lost' }, CALLER)).total).toBe(2);
    expect((await recordSummary(database(), 'Deal', {}, CALLER)).counts['needs-quote']).toBe(21);
    const narrowed = await recordSummary(database(), 'Deal', { stage: 'Site visit', search: 'glasshouse' }, CALLER);
    const listed = await listRecords(
      database(),
      'Deal',
      { ...query, stage: 'Site visit', search: 'glasshouse' },
      CALLER,
    );
    expect(narrowed.counts.all).toBe(listed.total);
    expect(narrowed.counts.all).toBeGreaterThan(0);
    // What can be chosen stays the same, whatever is chosen.
    expect(narrowed.stages).toEqual((await recordSummary(database(), 'Deal', {}, CALLER)).stages);
  });

  it('repeats what failed on the way, and says so when the CRM stays away', async () => {
    await stack.fault({ on: 'read', kind: 'status', status: 503, times: 2 });
    await stack.fault({ on: 'read', kind: 'drop-before', times: 1 });
    expect((await wholeDeal('D-1187')).deal.id).toBe('D-1187');
    await stack.fault({ on: 'read', kind: 'status', status: 500, times: 20 });
    await expect(wholeDeal('D-1187')).rejects.toMatchObject({ failure: 'away' });
  });

  it('writes a correction back only onto the version that was seen', async () => {
    const { deal } = await wholeDeal('D-1209');
    const change = { type: 'Deal', id: deal.id, field: 'order_number', value: 'SLH-0094' };
    await changeField(database(), { ...change, version: deal.version! }, CALLER);
    expect((await wholeDeal('D-1209')).deal.fields.order_number).toBe('SLH-0094');
    await expect(
      changeField(database(), { ...change, value: 'X', version: deal.version! }, CALLER),
    ).rejects.toMatchObject({
      status: 409,
      title: expect.stringMatching(new RegExp(`^${CALLER.name} changed the deal, .*20\\d\\d`)) as string,
      message: expect.stringContaining('Purchase-order number is “SLH-0094” there now; you typed “X”.') as string,
    });
    // A change that did not go by Lumbix is told as the CRM tells it; without a time, without one.
    await stack.changeInCrm('Deals', 'D-1209', { updated_by: 'Nell Orrin', updated_at: null });
    const theirs = await problemOf(changeField(database(), { ...change, version: deal.version! }, CALLER));
    expect(theirs.title).toBe('Nell Orrin changed the deal');
    const wrong = await problemOf(
      changeField(database(), { ...change, version: '*', field: 'validity_days', value: 'soon' }, CALLER),
    );
    expect(wrong.detail).toBe('Validity in days is a number with a point before its decimals, such as 1250.50.');
  });
});

describe('templates for a record', () => {
  const offered = async (type: string, id: string) =>
    (await templatesFor(database(), { type, id }, CALLER)).map(({ id: template, unfit }) => [template, unfit] as const);

  it('begin with the usual ones of its stage, and end with those that do not fit, each with its sentence', async () => {
    const quoted = await offered('Deal', 'D-1188');
    expect(quoted[0]).toEqual(['glasshouse-quote', null]);
    expect(quoted.at(-1)![1]).toBe(
      'Nothing of this deal has been invoiced, or all of it was credited. File an invoice before its receipt.',
    );
    expect(quoted.find(([id]) => id === 'deposit-invoice')![1]).toBe(
      'A deposit is invoiced once the deal is won; this one is at “Quoted”.',
    );
    const fits = quoted.map(([, unfit]) => unfit === null);
    expect(fits).toEqual([...fits].sort((one, other) => Number(other) - Number(one)));
    const delivered = await offered('Deal', 'D-1210');
    expect(delivered.slice(0, 2).map(([id]) => id)).toEqual(['delivery-note', 'final-invoice']);
  });

  it('are those of its own type', async () => {
    expect(await offered('Account', 'A-101')).toEqual([['account-letter', null]]);
    expect(await offered('Contact', 'C-201')).toEqual([]);
    await expect(offered('Product', 'P-1')).rejects.toMatchObject({ status: 404 });
  });
});

describe('filing', () => {
  beforeAll(async () => {
    await stack.startWorker();
  });

  it('puts one attachment on the deal and one row in the register, with the bytes that were rendered', async () => {
    const { id, number } = await file('D-1189');
    await untilFiled(id);
    await until(async () => (await readDocument(database(), id, CALLER)).document.stepsLeft === 0);
    const { bytes, fileName, sha256 } = await readFile(database(), id, CALLER);
    expect(await stack.attachments('D-1189')).toEqual([
      { name: fileName, sha256, revision: 1, created_at: expect.any(Date) as Date },
    ]);
    expect(fileName).toBe(`Offerte ${number} Kwekerij Ganzenpad.pdf`);
    const printed = execFileSync('pdftotext', ['-layout', '-', '-'], { input: bytes, encoding: 'utf8' });
    expect(printed).toContain(number);
    expect(printed).toContain('52.480,00');
    const { document, history } = await readDocument(database(), id, CALLER);
    expect(document).toMatchObject({ state: 'filed', amount: '52480', currency: 'EUR', recordId: 'D-1189' });
    expect(history.map(({ kind }) => kind)).toEqual(['number taken', 'rendered', 'attached', 'filed', 'step']);
  });

  it('ends with one attachment when the first two attach calls answer 500', async () => {
    await stack.fault({ on: 'attach', kind: 'status', status: 500, times: 2 });
    const { id } = await file('D-1190');
    await untilFiled(id);
    expect(await stack.attachments('D-1190')).toHaveLength(1);
  });

  it('ends with one attachment when the CRM stored the file and dropped the connection', async () => {
    await stack.fault({ on: 'attach', kind: 'drop-after', times: 2 });
    const { id } = await file('D-1193');
    await untilFiled(id);
    expect(await stack.attachments('D-1193')).toHaveLength(1);
  });

  it.each<[string, Omit<Fault, 'times'>, string, number?]>([
    ['an answer that is cut off', { on: 'attach', kind: 'cut-off' }, 'D-1194'],
    ['an answer that stalls', { on: 'attach', kind: 'stall' }, 'D-1195', 1],
    ['a page of a proxy with status 200', { on: 'attach', kind: 'page' }, 'D-1197'],
    ['a token that holds no more, and the next one neither', { on: 'attach', kind: 'status', status: 401 }, 'D-1211'],
    ['a time-out of the CRM (408)', { on: 'attach', kind: 'status', status: 408 }, 'D-1200'],
    ['a locked record (423)', { on: 'attach', kind: 'status', status: 423 }, 'D-1203'],
    ['a conflict with something that goes on (409)', { on: 'attach', kind: 'status', status: 409 }, 'D-1211', 2],
    ['a 403 that is no OData error', { on: 'attach', kind: 'status', status: 403, plain: true }, 'D-1205'],
    ['a list of files that is cut off', { on: 'read', kind: 'cut-off' }, 'D-1207'],
    ['a token service that is down', { on: 'token', kind: 'status', status: 503, plain: true }, 'D-1211'],
  ])(
    'passes: %s voids nothing and files once',
    async (_, fault, deal, times = 3) => {
      const before = await stack.contents(deal);
      const request = await requestFor(deal);
      // A fault of reading or of tokens is for the worker alone; one that was just started has no token yet.
      const isForWorker = fault.on !== 'attach';
      if (isForWorker) await stack.stopWorkers();
      else await stack.fault({ ...fault, times });
      const { id } = await fileAs(services(), request, CALLER);
      if (isForWorker) {
        await stack.fault({ ...fault, times });
        await stack.startWorker();
      }
      await until(async () => (await stored(id)).state === 'filed', 50_000);
      expect(await stack.contents(deal)).toBe(before + 1);
      expect(await reasonOf(id)).toBeNull();
    },
    60_000,
  );

  it('waits with its reason while the CRM is away, and goes on when it is back', async () => {
    await stack.fault({ on: 'attach', kind: 'status', status: 500, times: 3 });
    const { id } = await file('D-1196');
    await until(async () => (await reasonOf(id)) !== null);
    expect((await stored(id)).state).toBe('rendered');
    await untilFiled(id);
    expect(await reasonOf(id)).toBeNull();
    expect(await stack.attachments('D-1196')).toHaveLength(1);
  });

  it('gives people who file at once a number each', async () => {
    const deals = ['D-1209', 'D-1229', 'D-1230'];
    const requests = await Promise.all(deals.map(requestFor));
    const begun = await Promise.all(requests.map((request) => fileAs(services(), request, CALLER)));
    expect(new Set(begun.map(({ number }) => number)).size).toBe(3);
    for (const { id } of begun) await untilFiled(id);
    const attached = await Promise.all(deals.map((deal) => stack.attachments(deal)));
    expect(new Set(attached.flat().map(({ name }) => name)).size).toBe(3);
  });

  it('refuses a quote with a blank price, in words that name the line and the field', async () => {
    const before = (await register()).total;
    const problem = await problemOf(file('D-1202'));
    expect(problem.status).toBe(422);
    expect(problem.detail).toContain('Line 4, Vent motor VM-48, 24 V: no unit price');
    expect((await register()).total).toBe(before);
    expect(await stack.attachments('D-1202')).toEqual([]);
  });

  it('refuses an open warning, and keeps the reason of a skipped one', async () => {
    const request = await requestFor('D-1187');
    const problem = await problemOf(fileAs(services(), { ...request, skips: {} }, CALLER));
    expect(problem.detail).toContain('The deal says');
    const { id } = await fileAs(services(), request, CALLER);
    await untilFiled(id);
    expect((await readDocument(database(), id, CALLER)).document.skips).toEqual({
      'check amount': 'agreed by telephone',
    });
  });

  it('refuses a deal that changed since the proof, and shows the change', async () => {
    const request = await requestFor('D-1199');
    await stack.changeInCrm('LineItems', 'D-1199-1', { unit_price: '45.00' });
    const problem = await problemOf(fileAs(services(), request, CALLER));
    expect(problem.status).toBe(409);
    const what = 'Line 1, Toughened glass, 4 mm: unit price';
    expect(problem.members.changes).toEqual([{ what, before: '€44.50', after: '€45.00' }]);
    expect(await stack.attachments('D-1199')).toEqual([]);
  });

  it('files a deal whose change since the proof prints nowhere', async () => {
    const request = await requestFor('D-1201');
    await stack.changeInCrm('Deals', 'D-1201', { snow_zone: '4', stage: 'Quoted' });
    await untilFiled((await fileAs(services(), request, CALLER)).id);
  });

  it('makes one document of one key, however often and however many at once it comes', async () => {
    const request = await requestFor('D-1198');
    const key = 'one of a kind';
    const all = await Promise.all(Array.from({ length: 6 }, () => fileAs(services(), request, CALLER, key)));
    expect(new Set(all.map(({ id }) => id)).size).toBe(1);
    expect(await fileAs(services(), request, CALLER, key)).toEqual(all[0]);
    await untilFiled(all[0]!.id);
    expect(await stack.attachments('D-1198')).toHaveLength(1);
    const other = { ...request, skips: { ...request.skips, more: 'agreed' } };
    expect((await problemOf(fileAs(services(), other, CALLER, key))).title).toBe('The key was used before');
    const again = await problemOf(fileAs(services(), request, CALLER));
    expect(again.detail).toContain(`It became ${all[0]!.number}.`);
  });

  it('refuses an edition, a plan and a house style that the template does not have', async () => {
    for (const choices of [{ edition: 'xx' }, { plan: 'xx' }, { houseStyle: 'xx' }])
      expect(await problemOf(proofOf(services(), 'D-1188', TEMPLATE, CALLER, choices))).toMatchObject({
        status: 422,
        detail: expect.stringContaining('Choose one of these') as string,
      });
  });

  it('files nobody else’s proof', async () => {
    const other = { ...CALLER, id: '01900000-0000-7000-8000-000000000009' };
    expect((await problemOf(fileAs(services(), await requestFor('D-1188'), other))).status).toBe(404);
  });

  it('refuses to hand out bytes that are not what was filed', async () => {
    const { id } = await file('D-1207');
    await untilFiled(id);
    const changed = { bytes: Buffer.from('%PDF- changed') };
    await database().update(files).set(changed).where(eq(files.documentId, id));
    expect((await problemOf(readFile(database(), id, CALLER))).title).toBe('The PDF is damaged');
  });

  it('keeps the register usable while the CRM is away', async () => {
    await stack.stopCrm();
    await expect(proof('D-1187')).rejects.toBeInstanceOf(SourceError);
    expect((await register()).total).toBeGreaterThan(5);
    await stack.startCrm();
    expect((await proof('D-1187')).record.id).toBe('D-1187');
  });
});

describe('a filing that waits', () => {
  const step = async (id: string) =>
    (
      await database()
        .select()
        .from(steps)
        .where(and(eq(steps.documentId, id), eq(steps.state, 'open')))
        .orderBy(steps.position)
    )[0];
  /** As if the last attempt to attach had been six minutes ago. */
  const longAgo = (id: string) =>
    database()
      .update(steps)
      .set({ unclearAt: new Date(Date.now() - 6 * 60_000) })
      .where(and(eq(steps.documentId, id), eq(steps.kind, 'attach')));
  const history = async (id: string) => (await readDocument(database(), id, CALLER)).history.map(({ kind }) => kind);
  const waiting = async (deal: string, fault: Fault) => {
    await stack.fault(fault);
    const begun = await file(deal);
    await until(async () => (await reasonOf(begun.id)) !== null);
    return begun;
  };
  const notStored: Fault = { on: 'attach', kind: 'status', status: 503, times: 1_000 };
  const stored500: Fault = { on: 'attach', kind: 'page', times: 1_000 };

  it('says why and when it is tried next, with growing pauses, and goes on at once when somebody says so', async () => {
    const { id } = await waiting('D-1212', notStored);
    await until(async () => (await step(id))!.attempts >= 4 && (await step(id))!.dueAt !== null);
    const { document } = await readDocument(database(), id, CALLER);
    expect(document.reason).toBe('The CRM answered with an error (503).');
    expect(document.dueAt!.getTime()).toBeGreaterThan(Date.now() + 1_000);
    await stack.clearFaults();
    await tryAgain(services(), id, CALLER);
    await until(async () => (await stored(id)).state === 'filed', 2_500);
    expect((await readDocument(database(), id, CALLER)).document).toMatchObject({ reason: null, dueAt: null });
    await until(async () => (await readDocument(database(), id, CALLER)).document.stepsLeft === 0);
    expect((await problemOf(tryAgain(services(), id, CALLER))).title).toBe('The document is filed');
  });

  it('becomes void where finance says so, once nothing can still arrive and the record does not hold the file', async () => {
    const { id, number } = await waiting('D-1213', notStored);
    await voidDocument(services(), id, 'Agreed with the customer.', CALLER);
    await until(async () => (await step(id))!.dueAt!.getTime() > Date.now() + 200_000);
    expect((await readDocument(database(), id, CALLER)).document).toMatchObject({ state: 'rendered', toBeVoid: true });
    await longAgo(id);
    await tryAgain(services(), id, CALLER);
    await until(async () => (await stored(id)).state === 'failed');
    expect(await stack.attachments('D-1213')).toEqual([]);
    expect(await reasonOf(id)).toBe('Agreed with the customer.');
    expect(await database().select().from(numbers).where(eq(numbers.text, number))).toMatchObject([{ state: 'void' }]);
    expect((await history(id)).slice(-2)).toEqual(['void asked for', 'failed']);
  });

  it('is filed all the same where the record holds its file', async () => {
    const { id } = await waiting('D-1214', stored500);
    await voidDocument(services(), id, 'Agreed with the customer.', CALLER);
    await until(async () => (await step(id))!.dueAt!.getTime() > Date.now() + 200_000);
    await stack.clearFaults();
    await longAgo(id);
    await tryAgain(services(), id, CALLER);
    await untilFiled(id);
    expect(await stack.attachments('D-1214')).toHaveLength(1);
  });

  it('is not void while an earlier attempt may still arrive, though a later one was refused', async () => {
    const request = await requestFor('D-1215');
    await stack.fault({ ...notStored, times: 1 });
    await stack.fault({ on: 'attach', kind: 'status', status: 415, times: 1 });
    const { id } = await fileAs(services(), request, CALLER);
    await until(async () => (await reasonOf(id))?.includes('out of order') ?? false);
    expect((await stored(id)).state).toBe('rendered');
    await longAgo(id);
    await stack.fault({ on: 'attach', kind: 'status', status: 415, times: 1 });
    await tryAgain(services(), id, CALLER);
    await until(async () => (await stored(id)).state === 'failed');
  });
});

describe('a worker', () => {
  beforeAll(() => stack.stopWorkers());

  it.each([20, 260, 600])(
    'that is killed %i ms into filing leaves one attachment, one row and no lost number',
    async (delay) => {
      // A slow attach widens the moment between the CRM's storing the file and its answer.
      await stack.fault({ on: 'attach', kind: 'slow', delay: 150, times: 1 });
      const before = await stack.contents('D-1211');
      const victim = await stack.startWorker();
      const { id, number } = await file('D-1211');
      await new Promise((done) => setTimeout(done, delay));
      victim.kill('SIGKILL');
      await once(victim, 'exit');
      await stack.startWorker();
      await untilFiled(id);
      await stack.stopWorkers();
      expect(await database().select().from(documents).where(eq(documents.number, number))).toHaveLength(1);
      expect(await stack.contents('D-1211')).toBe(before + 1);
    },
  );

  it('fails in words, its number void but kept, when the deal was deleted meanwhile', async () => {
    await stack.stopWorkers();
    const { id, number } = await file('D-1206');
    await stack.deleteInCrm('Deals', 'D-1206');
    await stack.startWorker();
    await until(async () => (await stored(id)).state === 'failed');
    expect((await readDocument(database(), id, CALLER)).document).toMatchObject({
      number,
      reason: 'There is no deal D-1206.',
    });
    expect(await database().select().from(numbers).where(eq(numbers.text, number))).toMatchObject([{ state: 'void' }]);
  });

  it('that starts before its database waits for it, and files', async () => {
    const cluster = new URL(process.env.DATABASE_URL!);
    const way = createServer((asking) => {
      const answering = connect(Number(cluster.port), cluster.hostname);
      for (const each of [asking, answering]) each.on('error', () => undefined);
      asking.pipe(answering).pipe(asking);
    });
    // The port is free when the worker is started, and nobody listens to it.
    way.listen(0, '127.0.0.1');
    await once(way, 'listening');
    const { port } = way.address() as AddressInfo;
    way.close();
    const starting = stack.startWorker({ DATABASE_URL: Object.assign(new URL(cluster), { port }).href });
    await Promise.race([starting, new Promise((done) => setTimeout(done, 2_500))]);
    way.listen(port, '127.0.0.1');
    await starting;
    const { id } = await file('D-1211');
    await untilFiled(id);
    await stack.stopWorkers();
    way.close();
  });

  it('puts the letter of an account on that account', async () => {
    const { id, number } = await fileAs(
      services(),
      await request(services(), 'A-102', 'account-letter', CALLER),
      CALLER,
    );
    await stack.startWorker();
    await untilFiled(id);
    await stack.stopWorkers();
    const fileName = `Letter ${number} Kestrel Hill Botanic Garden.pdf`;
    expect(await stack.attachments('A-102', 'Accounts')).toMatchObject([{ name: fileName }]);
    expect(await stored(id)).toMatchObject({ recordType: 'Account', recordName: 'Kestrel Hill Botanic Garden' });
    expect(await registeredFor(database(), { type: 'Account', id: 'A-102' }, new Date())).toMatchObject([{ number }]);
    const list = { view: 'all', sort: 'name', descending: false, skip: 0, top: 100 } as const;
    await refreshIndex(database());
    const { records } = await listRecords(database(), 'Account', list, CALLER);
    expect(records.find(({ id: account }) => account === 'A-102')).toMatchObject({
      columns: { city: 'Elmsea', country: 'GB' },
      paperTrail: [{ kind: 'letter', number }],
    });
  });

  it('leaves no gap in the series', async () => {
    const ofQuotes = eq(numbers.seriesId, 'quote');
    const rows = await database().select({ serial: numbers.serial }).from(numbers).where(ofQuotes);
    const serials = rows.map(({ serial }) => serial).sort((a, b) => a - b);
    expect(serials).toEqual(Array.from({ length: serials.length }, (_, index) => index + 1));
  });
});
