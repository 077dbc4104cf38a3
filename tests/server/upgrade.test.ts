import { execFileSync } from 'node:child_process';
import { readdirSync } from 'node:fs';
import pg from 'pg';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { listDocuments, readDocument, readFile } from '../../server/register';
import { callerWith } from '../callers';
import { Press } from '../../server/press/press';
import type { Services } from '../../server/services';
import { putInTemplate, takeOutTemplate } from '../../server/template-file';
import { openStack, until, type Stack } from './stack';

/** A database of an older Lumbix with fifty documents: 47 filed, one void, one that waits for the CRM, one not begun. */
const DUMP = 'tests/server/kept/fifty-documents.dump';
const CALLER = callerWith();
const database = () => openDatabase().database;
let stack: Stack;
let before: Record<string, unknown>[];

beforeAll(async () => {
  stack = await openStack(async (url) => {
    const version = readdirSync('/usr/lib/postgresql').sort((one, other) => Number(other) - Number(one))[0]!;
    execFileSync(`/usr/lib/postgresql/${version}/bin/pg_restore`, ['--no-owner', '--dbname', url, DUMP]);
    const client = new pg.Client(url);
    await client.connect();
    // Its secret was sealed with a key that is not kept; the start command says it anew.
    await client.query('delete from connections');
    before = (
      await client.query(`
        select d.id, d.number, d.kind, d.state, d.title, d.file_name, d.record_id, d.account_name, d.amount, d.currency, d.reason,
          d.created_at, d.filed_at, d.skipped, d.attachment_id, f.sha256, d.composition -> 'workings' workings,
          (select array_agg(e.sentence order by e.at, e.id) from events e where e.document_id = d.id) history
        from documents d left join document_files f on f.document_id = d.id order by d.created_at desc`)
    ).rows as Record<string, unknown>[];
    await client.end();
  });
});
afterAll(async () => {
  await closeDatabase();
  await stack.close();
});

it('a template of an older Lumbix is the same as its own file', async () => {
  const press = new Press(1);
  const services = { database: database(), press } as unknown as Services;
  const { body } = await takeOutTemplate(database(), 'glasshouse-quote', CALLER);
  const put = await putInTemplate(services, new TextEncoder().encode(body), CALLER).finally(() => press.close());
  expect(put.outcome).toBe('unchanged');
});

it('documents of an older Lumbix are found by words in any order', async () => {
  const { number, account_name: account } = before[10] as { number: string; account_name: string };
  const search = `${account.split(' ').reverse().join(' ').toUpperCase()} ${number}`;
  const query = { search, sort: 'created', descending: true, skip: 0, top: 100 };
  expect((await listDocuments(database(), query, CALLER)).documents).toMatchObject([{ number }]);
});

it('a database of an older Lumbix starts with an equal register', async () => {
  expect(before).toHaveLength(50);
  const query = { sort: 'created', descending: true, skip: 0, top: 100 };
  const { documents } = await listDocuments(database(), query, CALLER);
  const after = await Promise.all(
    documents.map(async ({ id }) => {
      const { document, explained, history } = await readDocument(database(), id, CALLER);
      const file = await readFile(database(), id, CALLER).catch(() => undefined);
      return {
        id,
        number: document.number,
        kind: document.kind,
        state: document.state,
        title: document.title,
        file_name: document.fileName,
        record_id: document.recordId,
        account_name: document.accountName,
        amount: document.amount,
        currency: document.currency,
        reason: document.reason,
        created_at: document.createdAt,
        filed_at: document.filedAt,
        skipped: document.skips,
        attachment_id: document.attachmentId,
        sha256: file?.sha256 ?? null,
        workings: explained?.workings ?? null,
        history: history.map(({ sentence }) => sentence),
      };
    }),
  );
  expect(after).toEqual(before);
});

it('what was on its way is filed, once', async () => {
  const open = before.filter(({ state }) => state !== 'filed' && state !== 'failed');
  expect(open.map(({ state }) => state).sort()).toEqual(['preparing', 'rendered']);
  await stack.startWorker();
  for (const { id, record_id: deal } of open) {
    await until(async () => (await readDocument(database(), String(id), CALLER)).document.state === 'filed');
    expect(await stack.attachments(String(deal))).toHaveLength(1);
  }
});
