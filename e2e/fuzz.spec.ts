import { expect, test, type APIRequestContext } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { contract } from '../core/contract/contract';
import { isFile, type Endpoint } from '../core/contract/endpoint';
import { callerWith, EVERYTHING, inDatabase } from './callers';

/** Requests of every endpoint, as nobody means them. `FUZZ=5000` for the whole; `FUZZ_SEED` for those of another run. */
const REQUESTS = Number(process.env.FUZZ ?? 500);
const SEED = Number(process.env.FUZZ_SEED ?? 20261125);

/** What would take the rest of the run away: signing out and the people who are there. */
const LEFT_OUT = ['DELETE /session', 'DELETE /me/sessions'];
const KEYS = Object.keys(contract).filter((key) => !LEFT_OUT.includes(key));

/** Texts of people, of programs and of nobody; ids that are there among them. */
const text = fc.oneof(
  fc.constantFrom(
    'D-1188', 'D-1202', 'glasshouse-quote', 'Deal', 'LineItem', 'name', 'W/"1"', 'all', 'created', 'true', '-1', '0', '1e309',
    '0190a3c2-7d1e-7b1c-9a55-0123456789ab', '2026-02-31', '*', '__proto__', 'constructor', "'; drop table people; --", '%', '${x}',
    '<script>', '\u0000', '\ud800', '‮', '=1+1',
  ), // prettier-ignore
  fc.string({ unit: 'binary', maxLength: 40 }),
  fc.string({ minLength: 300, maxLength: 3_000 }),
);
const json = fc.letrec((tie) => ({
  value: fc.oneof(
    { depthSize: 'small' },
    text,
    fc.double(),
    fc.boolean(),
    fc.constant(null),
    fc.array(tie('value'), { maxLength: 4 }),
    fc.dictionary(text, tie('value'), { maxKeys: 4 }),
  ),
})).value;

/** The names of an endpoint's shape, so that what is asked comes further than the first check. */
const fieldsOf = (shape: unknown) => Object.keys(Object(Object(shape).fields) as object);
const partly = (shape: unknown, value: fc.Arbitrary<unknown>) => {
  const fields = fieldsOf(shape).map((name): [string, fc.Arbitrary<unknown>] => [name, likely(name, value)]);
  return fc.record(Object.fromEntries(fields), {
    requiredKeys: fields.map(([name]) => name).filter((name) => name in THERE),
  });
};

/** What is there under some names, so that a request gets as far as the proof, the register and the CRM. */
const THERE: Readonly<Record<string, string>> = {
  template: 'glasshouse-quote',
  record: 'D-1188',
  recordId: 'D-1188',
  paths: 'name,account.name,lines.net',
};
const likely = (name: string, value: fc.Arbitrary<unknown>) =>
  name in THERE ? fc.oneof({ arbitrary: fc.constant(THERE[name]), weight: 4 }, value) : value;

const request = fc.constantFrom(...KEYS).chain((key) => {
  const { body, query } = contract[key as keyof typeof contract] as Endpoint;
  return fc.record({
    key: fc.constant(key),
    id: text,
    query: fc.oneof(partly(query, text), fc.dictionary(text, text, { maxKeys: 3 })),
    body: body === undefined ? fc.constant(undefined) : fc.oneof(partly(body, json), json, text),
  });
});
type Request = { key: string; id: string; query: object; body: unknown };

async function send(caller: APIRequestContext, { key, id, query, body }: Request): Promise<number> {
  const [method, path] = key.split(' ') as [string, string];
  const { body: takes } = contract[key as keyof typeof contract] as Endpoint;
  // What is nothing but points leads to another address before it is sent.
  const encoded = (given: string) => encodeURIComponent(given.replaceAll(/\p{Surrogate}/gu, '?'));
  const asked = Object.entries(query).map(([name, value]) => `${encoded(name)}=${encoded(String(value))}`);
  const response = await caller.fetch(
    `/api${path.replaceAll(/\{\w+\}/g, encoded(id).replace(/^\.*$/, '-'))}?${asked.join('&')}`,
    {
      method,
      headers: takes ? { 'content-type': isFile(takes) ? takes.file : 'application/json' } : {},
      data: takes && Buffer.from(typeof body === 'string' ? body : JSON.stringify(body)),
      maxRedirects: 0,
    },
  );
  await response.body();
  return response.status();
}

/** Memory of the web process in MiB, as the kernel counts it. */
function memory(): number {
  const data = join(process.env.LUMBIX_TEST_DATA ?? '.data-test', 'interface');
  const ids = readFileSync(join(data, 'pids'), 'utf8').trim().split('\n');
  const web = ids.find((id) => readFileSync(`/proc/${id}/cmdline`, 'utf8').includes('.output/server'));
  return Number(execFileSync('ps', ['-o', 'rss=', '-p', web!], { encoding: 'utf8' })) / 1_024;
}

/** What no such request may have written half of, or at all. */
const kept = () =>
  inDatabase(
    `select (select count(*) from documents) documents, (select count(*) from template_versions) versions,
      (select count(*) from people) people, (select string_agg(name || roles::text || coalesce(withdrawn_at::text, ''), ',' order by id) from people) who,
      (select url || client_id from connections) crm, (select count(*) from documents d where not exists
        (select 1 from events e where e.subject_id = d.id::text)) without_history`,
  );

test(`${REQUESTS} requests that nobody means: none ends in an error of ours, none takes long, nothing is half-written`, async () => {
  test.setTimeout(60_000 + REQUESTS * 200);
  const caller = await callerWith(...EVERYTHING);
  const before = await kept();
  const statuses = new Map<number, number>();
  let [slowest, first] = [0, 0];
  let done = 0;
  for (const each of fc.sample(request as fc.Arbitrary<Request>, { numRuns: REQUESTS, seed: SEED })) {
    const began = performance.now();
    const status = await send(caller, each);
    const took = performance.now() - began;
    slowest = Math.max(slowest, took);
    expect(status, JSON.stringify(each).slice(0, 400)).not.toBe(500);
    expect(took, JSON.stringify(each).slice(0, 400)).toBeLessThan(2_000);
    statuses.set(status, (statuses.get(status) ?? 0) + 1);
    if (++done === 500) first = memory();
  }
  const last = memory();
  const summary = `${JSON.stringify(Object.fromEntries(statuses))}, slowest ${Math.round(slowest)} ms, ${Math.round(first)} then ${Math.round(last)} MiB`;
  test.info().annotations.push({ type: 'fuzz', description: summary });
  if (process.env.FUZZ) process.stdout.write(`${summary}\n`);
  if (REQUESTS > 500) expect(last).toBeLessThan(first * 1.2);
  expect(await kept()).toEqual(before);
});
