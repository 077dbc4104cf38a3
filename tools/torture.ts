/**
 * Hurts a whole Lumbix in every way that passes while callers file, then looks whether each accepted filing was filed exactly once,
 * and each of its three steps done once.
 * `npm run torture`; `-- --short` for the two minutes that `./test` takes of it; `-- --speed` measures filings without faults,
 * `-- --memory` memory over 2,000 of them, and `-- --worst` whether Lumbix answers while its press is fed with its worst. `SEED`
 * chooses another course.
 */
import { once } from 'node:events';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { audit } from './torture/audit';
import { Caller, pause, type Accepted } from './torture/caller';
import { hurt, type Hurt } from './torture/faults';
import { Lumbix, usageOf, type Part, type Usage } from './torture/lumbix';
import { Random } from './torture/random';

const SEED = Number(process.env.SEED ?? 20_261_126);
const port = Number(process.env.LUMBIX_TEST_PORT ?? 4710) + 7;
const data = join(process.env.LUMBIX_TEST_DATA ?? join(process.cwd(), '.data-test'), 'torture');
const write = (line: string) => process.stdout.write(`${line}\n`);

/** Deals whose ordinary quote has ten lines or less, and that can be filed. */
const DEALS = [
  'D-1188',
  'D-1189',
  'D-1190',
  'D-1193',
  'D-1196',
  'D-1198',
  'D-1201',
  'D-1207',
  'D-1209',
  'D-1210',
  'D-1211',
];
const CALLERS = 8;

const lumbix = new Lumbix(port, data);
const random = new Random(SEED);
const has = (option: string) => process.argv.includes(option);

/** The quote with three steps after its filing: a field, an activity, a copy. */
const TEMPLATE = 'tortured-quote';
const STEPS = [
  { type: 'setFields', id: 'field', fields: [{ field: 'document_link', value: 'document.number' }] },
  { type: 'activity', id: 'activity', kind: 'note', subject: '=[document.number]' },
  { type: 'copy', id: 'copy', place: 'team-files', path: 'Quotes/=[document.number]' },
];

async function publishQuote(): Promise<void> {
  const author = new Caller(lumbix);
  await author.signIn();
  const quote = (await (await author.get('/api/templates/glasshouse-quote/file')).json()) as { plans: object[] };
  const tortured = { ...quote, id: TEMPLATE, plans: [{ ...quote.plans[0], steps: STEPS }] };
  const { ok, status } = await author.send('/api/templates?reason=torture', Buffer.from(JSON.stringify(tortured)));
  if (!ok) throw new Error(`The quote with steps was refused: ${status}`);
}

/** Files so many documents with all callers at once; the ordinary quote, where no other template is said. */
async function fileAll(count: number, doubles: number, template?: string): Promise<Accepted[]> {
  const accepted: Accepted[] = [];
  let begun = 0;
  const work = async () => {
    const caller = new Caller(lumbix, template);
    while (begun++ < count) accepted.push(await caller.file(random.of(DEALS), random.share() < doubles));
  };
  await Promise.all(Array.from({ length: CALLERS }, work));
  return accepted;
}

/** Waits until nothing is on its way any more. */
async function settled(within: number): Promise<void> {
  const end = Date.now() + within;
  while (Date.now() < end) {
    const open = await lumbix
      .ask<{ count: number }>(
        'lumbix',
        `select count(*)::int from documents d where state not in ('filed', 'failed')
           or exists (select 1 from steps where document_id = d.id and state = 'open' and d.state = 'filed')`,
      )
      .catch(() => [{ count: 1 }]);
    if (open[0]!.count === 0) return;
    await pause(200);
  }
}

async function torture(count: number, how: Hurt): Promise<number> {
  await publishQuote();
  let over = false;
  const hurting = hurt(lumbix, random, how, () => over);
  const accepted = await fileAll(count, 0.2, TEMPLATE);
  // What is on its way is hurt for a while longer.
  await pause(how.killEvery);
  over = true;
  const told = await hurting;
  write(
    `Hurt by ${Object.entries(told)
      .map(([what, times]) => `${what} (${times})`)
      .join(', ')}.`,
  );
  await settled(15 * 60_000);
  const wrong = await audit(lumbix, accepted);
  for (const each of wrong.slice(0, 20)) write(`  ${each}`);
  write(
    `${accepted.length} filings accepted; ${wrong.length === 0 ? 'each was filed exactly once, and each step done once' : `${wrong.length} things are wrong`}.`,
  );
  return wrong.length;
}

const WORST_FOR = 40_000;
/** In milliseconds, however much the press has to do. */
const HEALTH = 200;

/** How long each answer took, in a thread of its own: this one has its hands full with what it feeds. */
async function timesOf(url: string, end: number): Promise<number[]> {
  const asking = new Worker(
    `const { parentPort, workerData: { url, end } } = require('node:worker_threads');
    (async () => {
      const times = [];
      while (Date.now() < end) {
        const began = performance.now();
        await (await fetch(url)).text();
        times.push(performance.now() - began);
        await new Promise((done) => setTimeout(done, 100));
      }
      parentPort.postMessage(times);
    })();`,
    { eval: true, workerData: { url, end } },
  );
  const [times] = (await once(asking, 'message')) as [number[]];
  return times;
}

/** Whether the web process answers while its press is fed with its worst: deep repetitions, long proofs, huge files. */
async function worst(): Promise<number> {
  const callers = Array.from({ length: 20 }, () => new Caller(lumbix));
  await Promise.all(callers.map((caller) => caller.signIn()));
  const [author] = callers as [Caller];
  const template = (await (await author.get('/api/templates/glasshouse-quote/file')).json()) as {
    layout: { body: unknown[] };
  };
  const each = (id: string, content: unknown) => ({
    type: 'forEach',
    attrs: { id, list: 'deal.lines', note: id },
    content: [content],
  });
  const word = { type: 'paragraph', attrs: { id: 'deep-word' }, content: [{ type: 'text', text: 'deep' }] };
  template.layout.body.push(each('deep-1', each('deep-2', each('deep-3', word))));
  const deep = await author.send(
    '/api/templates?reason=deep',
    Buffer.from(JSON.stringify({ ...template, id: 'deep' })),
  );
  write(`A template with three repetitions inside of each other: ${deep.status}.`);
  const end = Date.now() + WORST_FOR;
  const statuses: Record<string, number> = {};
  const told = (what: string, answer: Response | undefined) => {
    const name = `${what} ${answer?.status ?? 'not answered in time'}`;
    statuses[name] = (statuses[name] ?? 0) + 1;
  };
  const sent = (caller: Caller, path: string, body: object) => caller.send(path, body).catch(() => undefined);
  const huge = Buffer.from(`{"format": 2, "name": "${'x'.repeat(25_000_000)}"}`);
  const feed = async (caller: Caller, at: number) => {
    while (Date.now() < end) {
      if (at === 1) told('import', await sent(caller, '/api/templates', huge));
      else
        told(
          at < 6 ? 'deep' : 'proof',
          await sent(caller, '/api/productions', {
            template: at < 6 && deep.ok ? 'deep' : 'glasshouse-quote',
            record: 'D-1203',
          }),
        );
    }
  };
  const asked = timesOf(`${lumbix.url}/api/health`, end);
  await Promise.all(callers.map(feed));
  const times = (await asked).sort((one, other) => one - other);
  const at = (share: number) => Math.round(times[Math.floor((times.length - 1) * share)]!);
  const slowest = at(1);
  write(
    `Fed with ${JSON.stringify(statuses)}: ${times.length} times asked, health took ${at(0.5)} ms in the middle, ${at(0.99)} ms at the 99th percentile, and ${slowest} ms at most (${HEALTH}).`,
  );
  return slowest > HEALTH ? 1 : 0;
}

const PARTS: readonly Part[] = ['web', 'worker', 'crm'];
const usages = (): Record<string, Usage> => ({
  ...Object.fromEntries(PARTS.map((part) => [part, usageOf(lumbix.idOf(part)!)])),
  database: usageOf(lumbix.databaseId()!),
});

/** Filings in a second from the first request to the last “filed”, proofs apart, and what each process took for them. */
async function speed(count: number): Promise<void> {
  const callers = Array.from({ length: CALLERS }, () => new Caller(lumbix));
  const proofs = await Promise.all(callers.map(async (caller) => caller.proofs(DEALS, Math.ceil(count / CALLERS))));
  const before = usages();
  const began = performance.now();
  await Promise.all(callers.map((caller, at) => caller.fileProofs(proofs[at]!)));
  await settled(120_000);
  const seconds = (performance.now() - began) / 1_000;
  const all = proofs.flat().length;
  write(`${all} filings in ${seconds.toFixed(1)} s: ${(all / seconds).toFixed(1)} in a second.`);
  for (const [part, { seconds: now, memory }] of Object.entries(usages()))
    write(
      `  ${part.padEnd(9)}${(now - before[part]!.seconds).toFixed(1)} s of processor time, ${Math.round(memory / 2 ** 20)} MiB`,
    );
}

/**
 * The usual memory of each part while so many documents are filed. Processes of the press grow and are renewed, so one look at a
 * moment would say little.
 */
async function memoryWhile(count: number): Promise<Record<string, number>> {
  const looks: Record<string, Usage>[] = [];
  const looking = setInterval(() => looks.push(usages()), 1_000);
  await fileAll(count, 0);
  await settled(120_000);
  clearInterval(looking);
  const mean = (part: string) => looks.reduce((sum, each) => sum + each[part]!.memory, 0) / looks.length;
  return Object.fromEntries(Object.keys(looks[0]!).map((part) => [part, mean(part)]));
}

async function memory(): Promise<number> {
  await fileAll(200, 0);
  await settled(120_000);
  const first = await memoryWhile(200);
  await fileAll(1_600, 0);
  await settled(300_000);
  const last = await memoryWhile(200);
  let wrong = 0;
  for (const part of Object.keys(first)) {
    const ratio = last[part]! / first[part]!;
    if (ratio > 1.2) wrong++;
    write(
      `  ${part.padEnd(9)}${[first[part]!, last[part]!].map((each) => `${Math.round(each / 2 ** 20)} MiB`).join(' then ')}: ${ratio.toFixed(2)}`,
    );
  }
  return wrong;
}

async function asked(): Promise<number> {
  if (has('--speed')) {
    // The engine and the database are warm then, as they are on a working day.
    await fileAll(60, 0);
    await settled(60_000);
    await speed(320);
    return 0;
  }
  if (has('--worst')) return worst();
  if (has('--memory')) return memory();
  if (has('--short')) return torture(30, { faultEvery: 700, killEvery: 6_000, hang: 12_000 });
  return torture(300, { faultEvery: 900, killEvery: 9_000, hang: 180_000 });
}

await lumbix.start();
let wrong = 1;
try {
  wrong = await Promise.race([asked(), lumbix.givesUp()]);
} catch (problem) {
  write(problem instanceof Error ? problem.message : String(problem));
} finally {
  const took = await lumbix.stop();
  write(`Everything ended ${(took / 1_000).toFixed(1)} s after it was told to.`);
  if (took > 5_000) wrong++;
}
process.exit(wrong === 0 ? 0 : 1);
