import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { usualLayout } from '../../core/record/layout';
import { changeField } from '../../server/change';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { find } from '../../server/find';
import { openQueue, type Queue } from '../../server/jobs/queue';
import { Press } from '../../server/press/press';
import { advance } from '../../server/productions/engine';
import { changeLayout, readLayouts, readListAnew } from '../../server/records/layout-setup';
import { recordSchemas } from '../../server/db/schema';
import { keepStartLayouts } from '../../server/records/layouts';
import { keepStartConnection, writeConnection } from '../../server/records/odata/connection';
import { refreshIndex } from '../../server/records/record-index';
import { listRecords, recordSummary, recordTypes, recordValues, wholeRecord } from '../../server/records/record-list';
import { freshSchema, recordSchema } from '../../server/records/record-schema';
import { listDocuments, readDocument } from '../../server/register';
import type { Services } from '../../server/services';
import { putInTemplate } from '../../server/template-file';
import { callerWith } from '../callers';
import { fileAs, requestFor } from './produce';
import { openStack, type Stack } from './stack';
import { startWorkshopCrm, type WorkshopCrm } from './workshop-crm';

/** Lumbix at another CRM, which calls nothing as the demo does. */
const CALLER = callerWith();
const LIST = { view: 'all', sort: 'name', descending: false, skip: 0, top: 10 } as const;
let stack: Stack;
let crm: WorkshopCrm;
let queue: Queue;
let press: Press;
const database = () => openDatabase().database;
const services = () => ({ database: database(), queue, press }) as unknown as Services;
const list = (query: Partial<Parameters<typeof listRecords>[2]> = {}) =>
  listRecords(database(), 'Order', { ...LIST, ...query }, CALLER);
const whole = (id: string) => wholeRecord({ type: 'Order', id }, CALLER);

beforeAll(async () => {
  stack = await openStack();
  crm = await startWorkshopCrm();
  queue = await openQueue();
  press = new Press(1);
  await writeConnection(database(), { url: crm.url, clientId: 'x', clientSecret: 'y' }, 'person');
  await freshSchema();
});
afterAll(async () => {
  await keepStartConnection(database());
  await queue.close();
  press.close();
  crm.close();
  await closeDatabase();
  await stack.close();
});

const LETTER = {
  format: 'lumbix-template',
  formatVersion: 2,
  id: 'order-letter',
  name: 'Order letter',
  kind: 'quote',
  record: { type: 'Order', root: 'order' },
  houseStyle: 'orrin-vale',
  sheet: { currency: 'order.coin', rounding: 'half-away', perLine: [], lists: [], document: [], sums: [] },
  layout: {
    page: { size: 'a4', margins: { top: 20, right: 20, bottom: 20, left: 20 } },
    body: [
      {
        type: 'paragraph',
        attrs: { id: 'about' },
        content: [{ type: 'value', attrs: { id: 'firm', formula: 'order.client.firm' } }],
      },
    ],
  },
  editions: [{ id: 'en', label: 'English', locale: 'en-GB' }],
  plans: [{ id: 'file', label: 'File', fileName: 'Order =[order.title]', series: 'quote', title: '=[order.title]' }],
  checks: [],
};

describe('a CRM that calls everything otherwise', () => {
  it('says itself what its records are called', async () => {
    expect(await recordTypes(CALLER)).toEqual([
      {
        name: 'Order',
        label: 'Workshop order',
        plural: 'Workshop orders',
        parts: { name: 'Title', account: 'client', stage: 'Phase', amount: 'worth', day: 'until' },
        icon: null,
        columns: [],
        needsQuote: false,
      },
    ]);
  });

  it('writes letters by their numbers where it likes to', async () => {
    const { allowed } = (await recordSchema()).types.Order!.fields.phase!;
    expect(allowed!.map(({ value }) => value)).toEqual(['Asked', 'Agreed', 'Made & sent']);
  });

  it('is listed page after page, found, and read whole', async () => {
    await refreshIndex(database());
    const { records, total } = await list();
    expect(total).toBe(3);
    expect(records.map(({ name }) => name)).toEqual(['A railing', 'A stair', 'Two gates']);
    expect(records[2]).toMatchObject({ id: "W'1", account: 'Fen Nurseries', stage: 'Asked', amount: '120.5' });
    expect(records[0]).toMatchObject({ account: '', day: null, currency: 'EUR' });
    expect((await find(database(), 'gates', CALLER)).records).toMatchObject([
      { type: 'Order', called: 'Workshop order', id: "W'1", name: 'Two gates' },
    ]);
    const { record } = await whole("W'1");
    expect(record.fields).toMatchObject({
      worth: { amount: '120.5', currency: 'EUR' },
      client: { type: 'Client', id: '7', fields: { firm: 'Fen Nurseries' } },
    });
    expect((await recordValues({ type: 'Order', id: 'W2' }, ['title', 'client.firm'], CALLER)).fields).toEqual({
      title: 'A railing',
      client: null,
    });
  });

  it('drops from its list what the CRM tells by its address alone', async () => {
    crm.gone.push("W'9", 'W3');
    crm.orders = crm.orders.filter(({ code }) => code !== 'W3');
    await refreshIndex(database());
    expect((await list()).records.map(({ id }) => id)).toEqual(['W2', "W'1"]);
  });

  it('needs a quote at the stages that a person chooses, and shows what they choose', async () => {
    expect((await recordSummary(database(), 'Order', {}, CALLER)).counts['needs-quote']).toBe(0);
    const { types } = await recordSchema();
    const usual = usualLayout(types.Order!);
    const layout = { ...usual, parts: { ...usual.parts, owner: 'coin' }, needsQuote: ['Asked'] };
    await changeLayout(database(), 'Order', layout, CALLER);
    await refreshIndex(database());
    const summary = await recordSummary(database(), 'Order', {}, CALLER);
    expect(summary).toEqual({
      counts: { all: 2, quoted: 0, 'needs-quote': 1 },
      stages: ['Asked', 'Agreed', 'Made & sent'],
      owners: ['EUR'],
    });
    expect((await list({ view: 'needs-quote' })).records.map(({ id }) => id)).toEqual(["W'1"]);
    const setup = await readLayouts(database());
    expect(setup.chosen).toEqual(['Order']);
    expect(setup.lists).toMatchObject([{ type: 'Order', count: 2 }]);
    expect((await recordTypes(CALLER))[0]).toMatchObject({ needsQuote: true, parts: { owner: 'coin' } });
  });

  it.each([
    ['a field that there is not', { groups: [{ label: 'A', fields: ['gone'] }] }, 'has no field “gone”'],
    ['a part that its field cannot be', { parts: { amount: 'title' } }, '“Title” cannot be the amount'],
    ['a column that there is not', { columns: ['constructor'] }, 'has no field “constructor”'],
  ])('is not shown by %s', async (_, wrong, sentence) => {
    const { types } = await recordSchema();
    const asked = changeLayout(database(), 'Order', { ...usualLayout(types.Order!), ...wrong }, CALLER);
    await expect(asked).rejects.toThrow(sentence);
    await expect(changeLayout(database(), 'Deal', undefined, CALLER)).rejects.toThrow('no records of this type');
  });

  it('takes corrections, and files documents of its records', async () => {
    const { record } = await whole('W2');
    await changeField(
      database(),
      { type: 'Order', id: 'W2', version: record.version!, field: 'title', value: 'A long railing' },
      CALLER,
    );
    expect((await list()).records[0]!.name).toBe('A long railing');

    await putInTemplate(services(), new TextEncoder().encode(JSON.stringify(LETTER)), CALLER, {
      reason: 'one has no client',
    });
    const { id } = await fileAs(services(), await requestFor(services(), "W'1", 'order-letter', CALLER), CALLER);
    await advance(services(), id);
    const { document, history } = await readDocument(database(), id, CALLER);
    expect(document).toMatchObject({
      state: 'filed',
      recordType: 'Order',
      recordName: 'Two gates',
      accountName: 'Fen Nurseries',
      fileName: 'Order Two gates.pdf',
    });
    expect(history.map(({ sentence }) => sentence)).toContain(
      '“Order Two gates.pdf” is on the workshop order in the CRM.',
    );
    expect(crm.papers).toMatchObject([{ name: 'Order Two gates.pdf' }]);
    expect((await list({ view: 'quoted' })).records.map((each) => each.id)).toEqual(["W'1"]);
    expect((await recordSummary(database(), 'Order', {}, CALLER)).counts['needs-quote']).toBe(0);
    const query = { recordType: 'Order', recordId: "W'1", sort: 'created', descending: true, skip: 0, top: 5 };
    expect((await listDocuments(database(), query, CALLER)).total).toBe(1);
    expect((await listDocuments(database(), { ...query, recordType: 'Deal' }, CALLER)).total).toBe(0);

    // It keeps no revisions of a file: the next one is a file of its own.
    const next = await fileAs(services(), await requestFor(services(), "W'1", 'order-letter', CALLER), CALLER);
    await advance(services(), next.id);
    expect(next.number).toContain('rev. B');
    expect(crm.papers).toHaveLength(2);
  });

  it('is read anew where an administrator asks, and shown as usual again', async () => {
    crm.orders[0]!.title = 'Changed and never told';
    await refreshIndex(database());
    expect((await list()).records.map(({ name }) => name)).not.toContain('Changed and never told');
    await readListAnew(database(), 'Order');
    await refreshIndex(database());
    expect((await list()).records.map(({ name }) => name)).toContain('Changed and never told');
    await changeLayout(database(), 'Order', undefined, CALLER);
    expect((await readLayouts(database())).chosen).toEqual([]);
  });

  it('keeps what the start command brings, until a person says otherwise', async () => {
    const usual = usualLayout((await recordSchema()).types.Order!);
    const first = { ...usual, needsQuote: ['Agreed'] };
    await keepStartLayouts(database(), { Order: first });
    await keepStartLayouts(database(), { Order: first });
    expect((await freshSchema()).types.Order!.layout!.needsQuote).toEqual(['Agreed']);
    await changeLayout(database(), 'Order', { ...usual, needsQuote: ['Asked'] }, CALLER);
    await keepStartLayouts(database(), { Order: first });
    expect((await freshSchema()).types.Order!.layout!.needsQuote).toEqual(['Asked']);
    expect((await database().select().from(recordSchemas))[0]!.schema.types.Order!.plural).toBe('Workshop orders');
  });

  it('is seen by those alone whose roles a rule names', async () => {
    const caller = {
      ...callerWith('producer'),
      rules: { kinds: {}, records: { Order: { see: ['finance'], act: [] } } },
    };
    expect(await recordTypes(caller as never)).toEqual([]);
    await expect(list().then(() => wholeRecord({ type: 'Order', id: 'W2' }, caller as never))).rejects.toThrow(
      'finance',
    );
    await expect(wholeRecord({ type: 'Client', id: '7' }, CALLER)).rejects.toThrow('no records of this type');
  });
});
