/**
 * Measures every list, view, count, search and the shelf over 100,000 deals and 100,000 documents, alone and with eight callers at
 * once. `npm run load`. Nothing leaves this machine, and it ends by itself.
 */
import { join } from 'node:path';
import { Caller, pause } from './torture/caller';
import { Lumbix } from './torture/lumbix';
import { Random } from './torture/random';

const port = Number(process.env.LUMBIX_TEST_PORT ?? 4710) + 7;
const data = join(process.env.LUMBIX_TEST_DATA ?? join(process.cwd(), '.data-test'), 'load');
const COUNT = Number(process.env.LOAD ?? 100_000);
const CALLERS = 8;
const ROUNDS = 20;
/** At the 95th percentile, in milliseconds. */
const BARS = { alone: 200, together: 600 };
const write = (line: string) => process.stdout.write(`${line}\n`);

const lumbix = new Lumbix(port, data);
const random = new Random(7);

const DEALS = `
  insert into records (set, id, body)
  select 'Deals', 'L-' || n, jsonb_build_object('id', 'L-' || n, 'name', (array['Vent','Screen','Boiler','Glazing','Bench','Irrigation'])[1 + n % 6] || ' renewal ' || n,
    'number', 'L-' || n, 'stage', (array['Enquiry','Site visit','Quoted','Negotiation','Won','Lost'])[1 + n % 6], 'owner', 'Owner ' || n % 40,
    'account_id', (array(select id from records where set = 'Accounts' order by id))[1 + n % 20], 'contact_id', null, 'currency', (array['GBP','EUR'])[1 + n % 2],
    'amount', (n % 9973)::text || '.50', 'closes_on', (date '2026-01-01' + n % 700)::text, 'site_works', '[]'::jsonb, 'heating', 'none', 'brand', 'Little Vale')
  from generate_series(1, ${COUNT}) n`;

/** A document of each deal of the generator, as they are after their filing; every third deal has none and another two. */
const DOCUMENTS = [
  `insert into productions (id, template_version_id, record_source, record_type, record_id, choices, issue_date, snapshot, used, used_digest)
   select md5('l' || n)::uuid, (select current_version from templates where id = 'glasshouse-quote'), 'crm', 'Deal', 'L-' || n - n % 3, '{}', '2026-11-20', '{}', '{}', ''
   from generate_series(1, ${COUNT}) n`,
  `insert into numbers (id, series_id, period, serial, text, state) select md5('l' || n)::uuid, 'quote', '2025', n, 'Q-2025-' || n, case when n % 50 = 0 then 'void' else 'taken' end
   from generate_series(1, ${COUNT}) n`,
  `insert into documents (id, production_id, number_id, kind, state, number, record_type, record_id, record_name, account_name, title, file_name, template_id, amount, currency, issue_date, words, created_at, filed_at)
   select md5('l' || n)::uuid, md5('l' || n)::uuid, md5('l' || n)::uuid, case when n % 4 = 0 then 'invoice' else 'quote' end, case when n % 50 = 0 then 'failed' else 'filed' end, 'Q-2025-' || n, 'Deal', 'L-' || n - n % 3,
     'Renewal ' || n, 'Account ' || n % 500, 'Quote Q-2025-' || n, 'Quote ' || n || '.pdf', 'glasshouse-quote', n % 9973 + 0.5, (array['GBP','EUR'])[1 + n % 2], '2026-11-20',
     lower('Q-2025-' || n || ' Quote Q-2025-' || n || ' Account ' || n % 500 || ' Renewal ' || n || ' L-' || n - n % 3),
     now() - n * interval '1 minute', now() - n * interval '1 minute' from generate_series(1, ${COUNT}) n`,
  `insert into steps (document_id, position, kind, state, attempts, reason, done_at)
   select id, position, (array['number', 'render', 'attach'])[1 + position], case when state = 'failed' and position = 2 then 'ended' else 'done' end, 1, case when state = 'failed' and position = 2 then 'Refused.' end, now()
   from documents, generate_series(0, 2) position where id in (select md5('l' || n)::uuid from generate_series(1, ${COUNT}) n)`,
  'analyze',
];

const words = ['vent', 'renewal 123', 'L-4567', 'boiler', "o'neil", 'zz nothing', 'renewal', '42 screen'];
const deals = (query: string) => `/api/records/Deal?sort=name&descending=false&skip=0&top=25&view=all&${query}`;
const documents = (query: string) => `/api/documents?sort=created&descending=true&skip=0&top=50&${query}`;
const sorts = (names: readonly string[]) =>
  names.flatMap((sort) => ['true', 'false'].map((descending) => `sort=${sort}&descending=${descending}`));
const replaced = (path: string) => {
  // The last of two values of a name counts.
  const [base, query] = path.split('?') as [string, string];
  return `${base}?${new URLSearchParams(Object.fromEntries(new URLSearchParams(query)))}`;
};

const REQUESTS: readonly string[] = [
  ...sorts(['name', 'account', 'stage', 'amount', 'day']).map(deals),
  ...['view=needs-quote', 'view=quoted', 'stage=Won', 'owner=Owner 7', 'view=quoted&stage=Won&owner=Owner 4'].map(
    deals,
  ),
  ...words.map((word) => deals(`search=${word}`)),
  deals(`skip=${COUNT - 100}`),
  ...['', '?stage=Won', '?owner=Owner 7', '?search=vent', '?search=renewal 123&stage=Won'].map(
    (filter) => `/api/record-types/Deal${filter}`,
  ),
  '/api/register',
  ...sorts(['created', 'number', 'record', 'account', 'amount']).map(documents),
  ...['state=filed', 'state=failed', 'kind=invoice', 'recordId=L-300'].map(documents),
  ...words.map((word) => documents(`search=${word}`)),
  documents(`skip=${COUNT - 100}`),
  ...words.map((word) => `/api/find?q=${word}`),
  '/api/templates',
].map(replaced);

const percentile = (times: readonly number[], share: number) =>
  [...times].sort((one, other) => one - other)[Math.min(times.length - 1, Math.floor(times.length * share))]!;

let failures = 0;
async function timed(caller: Caller, path: string): Promise<number> {
  const began = performance.now();
  const response = await caller.get(path);
  await response.text();
  if (!response.ok) {
    failures++;
    if (failures < 5) write(`  ${path}: ${response.status}`);
  }
  return performance.now() - began;
}

await lumbix.start();
let wrong = 0;
try {
  await lumbix.ask('crm', DEALS);
  for (const statement of DOCUMENTS) await lumbix.ask('lumbix', statement);
  const began = Date.now();
  for (;;) {
    const [row] = await lumbix.ask<{ count: number }>('lumbix', 'select count(*)::int from record_index');
    if (row!.count >= COUNT) break;
    await pause(500);
  }
  write(`${COUNT} deals were read into the index in ${((Date.now() - began) / 1_000).toFixed(0)} s.`);
  await lumbix.ask('lumbix', 'vacuum analyze');

  const callers = Array.from({ length: CALLERS }, () => new Caller(lumbix));
  await Promise.all(callers.map((caller) => caller.signIn()));
  const [alone] = callers as [Caller];
  const slow: [string, number][] = [];
  for (const path of REQUESTS) {
    const times: number[] = [];
    for (let round = 0; round < ROUNDS; round++) times.push(await timed(alone, path));
    slow.push([path, percentile(times, 0.95)]);
  }
  slow.sort(([, one], [, other]) => other - one);
  for (const [path, time] of slow.slice(0, 8)) write(`  ${Math.round(time).toString().padStart(5)} ms  ${path}`);
  if (slow[0]![1] > BARS.alone) wrong++;

  const together: number[] = [];
  const work = async (caller: Caller) => {
    for (let each = 0; each < REQUESTS.length * 4; each++) together.push(await timed(caller, random.of(REQUESTS)));
  };
  await Promise.all(callers.map(work));
  const worst = percentile(together, 0.95);
  if (worst > BARS.together) wrong++;
  write(
    `Alone, the slowest of ${REQUESTS.length} requests takes ${Math.round(slow[0]![1])} ms at the 95th percentile (${BARS.alone}); with ${CALLERS} callers at once all of them ${Math.round(worst)} ms (${BARS.together}). ${failures} of ${REQUESTS.length * ROUNDS + together.length} failed.`,
  );
  if (failures > 0) wrong++;
} finally {
  await lumbix.stop();
}
process.exit(wrong === 0 ? 0 : 1);
