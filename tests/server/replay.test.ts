import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Template } from '../../core/template/template';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { documents } from '../../server/db/schema';
import { openDraft } from '../../server/drafts';
import { openQueue, type Queue } from '../../server/jobs/queue';
import { Press } from '../../server/press/press';
import { Problem } from '../../server/problem';
import { documentsToReplay, replayDocument } from '../../server/replay';
import type { Services } from '../../server/services';
import { callerWith } from '../callers';
import { fileAs, requestFor } from './produce';
import { openStack, until, type Stack } from './stack';

/** A draft over the data of documents that were filed. */
let stack: Stack;
let queue: Queue;
let press: Press;
const CALLER = callerWith();
const database = () => openDatabase().database;
const services = () => ({ database: database(), queue, press }) as unknown as Services;
const ID = 'glasshouse-quote';
const filed: string[] = [];

beforeAll(async () => {
  stack = await openStack();
  queue = await openQueue();
  press = new Press(1);
  await stack.startWorker();
  for (const deal of ['D-1187', 'D-1188']) {
    const { id } = await fileAs(services(), await requestFor(services(), deal, ID, CALLER), CALLER);
    const isFiled = async () =>
      (await database().select().from(documents).where(eq(documents.id, id)))[0]!.state === 'filed';
    await until(isFiled);
    filed.push(id);
  }
});
afterAll(async () => {
  await queue.close();
  press.close();
  await closeDatabase();
  await stack.close();
});

const draft = async () => (await openDraft(services(), ID, CALLER)).template;
const replayed = (template: Template, document: string) =>
  replayDocument(services(), ID, { template, document }, CALLER);

it('lists what was filed from the template, the last first', async () => {
  const all = await documentsToReplay(services(), ID, CALLER);
  expect(all.map(({ id }) => id)).toEqual(filed.toReversed());
  expect(all[0]).toMatchObject({ version: 1, number: expect.stringMatching(/^Q-/) as string });
  expect(await documentsToReplay(services(), 'delivery-note', CALLER)).toEqual([]);
});

it('comes out the same where nothing was changed, though the record is another by now', async () => {
  await stack.changeInCrm('LineItems', 'D-1187-1', { quantity: '999' });
  expect(await replayed(await draft(), filed[0]!)).toEqual({ changes: [], unread: [] });
});

it('tells the sum that would be another, by how much, and what hangs on it', async () => {
  const template = await draft();
  const document = template.sheet.document.map((figure) =>
    figure.name === 'tax_total' ? { ...figure, formula: `${figure.formula} + AMOUNT(0.02)` } : figure,
  );
  const { changes } = await replayed({ ...template, sheet: { ...template.sheet, document } }, filed[1]!);
  expect(changes).toContainEqual(expect.objectContaining({ of: 'figure', what: 'Total', by: '0.02' }));
});

it('tells sections that would print or not', async () => {
  const template = await draft();
  const body = template.layout.body.map((block) =>
    block.type === 'whenSection' ? { ...block, attrs: { ...block.attrs, when: '1 = 2' } } : block,
  );
  const { changes } = await replayed({ ...template, layout: { ...template.layout, body } }, filed[1]!);
  expect(changes).toContainEqual(
    expect.objectContaining({ of: 'section', what: 'when the house is heated', before: 'printed', after: 'left out' }),
  );
});

it('says which fields were not kept with a document, and refuses documents of others', async () => {
  const template = await draft();
  const body: Template['layout']['body'] = [
    {
      type: 'paragraph',
      attrs: { id: 'new' },
      content: [{ type: 'value', attrs: { id: 'new-value', formula: 'deal.snow_zone' } }],
    },
    ...template.layout.body,
  ];
  const { unread } = await replayed({ ...template, layout: { ...template.layout, body } }, filed[0]!);
  expect(unread).toEqual(['snow_zone']);
  await expect(replayed(template, randomUUID())).rejects.toThrow(Problem);
  const note = (await openDraft(services(), 'delivery-note', CALLER)).template;
  await expect(
    replayDocument(services(), 'delivery-note', { template: note, document: filed[0]! }, CALLER),
  ).rejects.toThrow('The template has no filed document of that name.');
});
