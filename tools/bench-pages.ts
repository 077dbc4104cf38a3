/**
 * Measures in Chromium how long pages take to show what they are for, at a first visit and at the next, and what they load:
 * `npm run bench:pages`. It starts a Lumbix of its own and ends by itself.
 */
import { join } from 'node:path';
import { chromium, type Browser, type BrowserContextOptions, type Page } from '@playwright/test';
import { chromiumOptions, signedIn } from './chromium';
import { BUDGET, loadOf, type Load } from './page-load';
import { Caller } from './torture/caller';
import { Lumbix } from './torture/lumbix';

const port = Number(process.env.LUMBIX_TEST_PORT ?? 4710) + 7;
const data = join(process.env.LUMBIX_TEST_DATA ?? join(process.cwd(), '.data-test'), 'pages');
const ROUNDS = 7;
const write = (line: string) => process.stdout.write(`${line}\n`);

/** A page, what shows that it is there, and its bars in milliseconds. */
interface Subject {
  name: string;
  path: string;
  shown: string;
  cold: number;
  warm: number;
}
const LIST = { cold: 900, warm: 400 };
const SUBJECTS: readonly Subject[] = [
  { name: 'deals', path: '/records/Deal', shown: 'td a', ...LIST },
  { name: 'templates', path: '/templates', shown: 'main img, .shelf a', ...LIST },
  { name: 'register', path: '/register', shown: 'td a', ...LIST },
  { name: 'deal', path: '/records/Deal/D-1187', shown: 'dd', ...LIST },
  {
    name: 'proof of one page',
    path: '/records/Deal/D-1187/produce/glasshouse-quote',
    shown: '[data-page="1"] svg',
    cold: 1_200,
    warm: 400,
  },
  {
    name: 'proof of seven pages',
    path: '/records/Deal/D-1203/produce/glasshouse-quote',
    shown: '[data-page="1"] svg',
    cold: 1_200,
    warm: 400,
  },
];
interface Visit extends Load {
  milliseconds: number;
}

async function visit(page: Page, { path, shown }: Subject): Promise<Visit> {
  let milliseconds = 0;
  const load = await loadOf(page, async () => {
    const began = performance.now();
    await page.goto(`${lumbix.url}${path}`, { waitUntil: 'commit' });
    await page.locator(shown).first().waitFor();
    milliseconds = performance.now() - began;
  });
  return { milliseconds, ...load };
}

const median = (values: number[]) => values.sort((one, other) => one - other)[Math.floor(values.length / 2)]!;
const medians = (visits: Visit[]): Visit => ({
  milliseconds: median(visits.map((each) => each.milliseconds)),
  requests: median(visits.map((each) => each.requests)),
  bytes: median(visits.map((each) => each.bytes)),
  html: median(visits.map((each) => each.html)),
});

async function measure(browser: Browser, options: BrowserContextOptions, subject: Subject): Promise<boolean> {
  const [cold, warm]: [Visit[], Visit[]] = [[], []];
  for (let round = 0; round < ROUNDS; round++) {
    const context = await browser.newContext(options);
    const page = await context.newPage();
    cold.push(await visit(page, subject));
    warm.push(await visit(page, subject));
    await context.close();
  }
  const [first, next] = [medians(cold), medians(warm)];
  const within =
    first.milliseconds <= subject.cold &&
    next.milliseconds <= subject.warm &&
    first.requests <= BUDGET.requests &&
    first.bytes <= BUDGET.bytes &&
    first.html <= BUDGET.html;
  write(
    `${within ? ' ' : '!'} ${subject.name.padEnd(22)} first ${first.milliseconds.toFixed(0).padStart(5)} ms (${subject.cold}), next ${next.milliseconds
      .toFixed(0)
      .padStart(
        5,
      )} ms (${subject.warm}), ${first.requests} requests, ${(first.bytes / 1_000).toFixed(0)} kB, HTML ${(first.html / 1_000).toFixed(1)} kB`,
  );
  return within;
}

/** Files a few documents, so that the register has what it is for. */
async function fillRegister(): Promise<void> {
  const caller = new Caller(lumbix);
  for (let count = 0; count < 30; count++) await caller.file('D-1188', false);
}

const lumbix = new Lumbix(port, data);
let isWithin = true;
try {
  await lumbix.start();
  await fillRegister();
  const browser = await chromium.launch(chromiumOptions);
  const options = await signedIn(browser, lumbix.url);
  for (const subject of SUBJECTS) isWithin = (await measure(browser, options, subject)) && isWithin;
  await browser.close();
} finally {
  await lumbix.stop();
}
process.exit(isWithin ? 0 : 1);
