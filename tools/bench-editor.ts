/**
 * Measures in Chromium how the sheet of a template keeps up with typing, and how long it takes to open: `npm run bench:editor`, which
 * prints medians. It starts a Lumbix of its own and ends by itself.
 */
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import type { Block } from '../core/template/blocks';
import type { Template } from '../core/template/template';
import { chromiumOptions, signedIn } from './chromium';
import { Lumbix } from './torture/lumbix';

const port = Number(process.env.LUMBIX_TEST_PORT ?? 4710) + 7;
const data = join(process.env.LUMBIX_TEST_DATA ?? join(process.cwd(), '.data-test'), 'editor');
const ROUNDS = 5;
const KEYS = 120;
/** Bars in milliseconds: from a key until it is drawn, and from the address until the sheet can be written on. */
const DELAY = 50;
const OPENING = 1_000;
/** From a change until the values are those of the change. */
const COMPUTING = 100;
/** From a key until the pages of the proof beside the sheet show it: the median, and the 95th percentile. */
const PROOFING = [150, 400] as const;
/** Until ten records are proved, from the address on. */
const PROVING = 3_000;
const write = (line: string) => process.stdout.write(`${line}\n`);
const lumbix = new Lumbix(port, data);

const at = (all: readonly number[], share: number) =>
  [...all].sort((a, b) => a - b)[Math.floor((all.length - 1) * share)]!;
const whole = (milliseconds: number) => `${Math.round(milliseconds)} ms`;

/** A template of about sixty pages in three hundred blocks, with values in all of them. */
function largeTemplate(small: Template): Template {
  const text = 'Everything that is built is looked at once more with the customer before it is paid for. '.repeat(7);
  const block = (number: number): Block =>
    number % 10 === 0
      ? { type: 'heading', attrs: { id: `h${number}`, level: 2 }, content: [{ type: 'text', text: `Part ${number}` }] }
      : {
          type: 'paragraph',
          attrs: { id: `p${number}` },
          content: [
            { type: 'text', text },
            { type: 'value', attrs: { id: `v${number}`, formula: 'deal.account.name' } },
            { type: 'text', text: `, ${number}. ${text}` },
          ],
        };
  const body = Array.from({ length: 300 }, (_, number) => block(number));
  return { ...small, id: 'bench-large', name: 'Bench', layout: { ...small.layout, body } };
}

/** How long each key takes from its event until the browser has drawn what it did (Event Timing). */
async function typing(page: Page): Promise<number[]> {
  await page.evaluate(() => {
    const kept: number[] = [];
    Object.assign(window, { kept });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) if (entry.name === 'keydown') kept.push(entry.duration);
    }).observe({ type: 'event', durationThreshold: 16, buffered: false } as PerformanceObserverInit);
  });
  for (let count = 0; count < KEYS; count++) await page.keyboard.press(count % 6 === 5 ? 'Space' : 'e', { delay: 30 });
  await page.waitForTimeout(300);
  // Those below the observer's threshold are not told: they count as quick.
  const told = await page.evaluate(() => (window as unknown as { kept: number[] }).kept);
  return [...told, ...Array.from({ length: Math.max(0, KEYS - told.length) }, () => 16)];
}

async function measure(page: Page, name: string, path: string): Promise<boolean> {
  const openings: number[] = [];
  const delays: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    await page.goto(`${lumbix.url}/templates`);
    const began = performance.now();
    await page.goto(`${lumbix.url}${path}`, { waitUntil: 'commit' });
    await page.locator('.sheet-text p').first().waitFor();
    openings.push(performance.now() - began);
    await page.locator('.sheet-text .value:not([data-fault="unknown"])').first().waitFor();
    const line = page.locator('.sheet-text p').nth(2);
    await line.scrollIntoViewIfNeeded();
    await line.click();
    delays.push(...(await typing(page)));
  }
  const computing = await computed(page);
  const [delay, opening] = [at(delays, 0.95), at(openings, 0.5)];
  write(
    `${name}: opened in ${whole(opening)} (bar ${OPENING}); a key is drawn in ${whole(at(delays, 0.5))}, at the 95th percentile ${whole(delay)} (bar ${DELAY}); values follow in ${whole(computing)} (bar ${COMPUTING}).`,
  );
  return delay < DELAY && opening < OPENING && computing < COMPUTING;
}

/** From a change until the values are those of the change: a value that is put in shows its words. */
async function computed(page: Page): Promise<number> {
  const all: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const found = await page.evaluate(async () => {
      const before = document.querySelectorAll('.sheet-text .value').length;
      const began = performance.now();
      const name = [...document.querySelectorAll<HTMLElement>('.record-drawer li button')].find((each) =>
        each.textContent?.startsWith('Name'),
      );
      name!.click();
      for (;;) {
        const values = [...document.querySelectorAll<HTMLElement>('.sheet-text .value')];
        if (values.length > before && values.every(({ dataset }) => dataset.fault !== 'unknown'))
          return performance.now() - began;
        await new Promise((resolve) => requestAnimationFrame(resolve));
      }
    });
    all.push(found);
    await page.waitForTimeout(1_200);
  }
  return at(all, 0.5);
}

/** From a key until the proof beside the sheet is drawn with what it did. */
async function proofing(page: Page): Promise<boolean> {
  await page.setViewportSize({ width: 1600, height: 900 });
  await page.goto(`${lumbix.url}/templates/full-proposal?record=D-1203&proof=1`);
  await page.locator('.proof-desk [data-page="1"] svg').waitFor();
  await page.locator('.sheet-text h1').first().click();
  await page.keyboard.press('End');
  await page.evaluate(() => {
    const times: number[] = [];
    let began: number | undefined;
    Object.assign(window, { times });
    addEventListener('keydown', () => (began = performance.now()), { capture: true });
    new MutationObserver((changes) => {
      const isDrawn = changes.some(({ target }) => (target as Element).closest?.('.drawing, .sheet'));
      if (!isDrawn || began === undefined) return;
      const at = began;
      began = undefined;
      requestAnimationFrame(() => times.push(performance.now() - at));
    }).observe(document.querySelector('.proof-desk')!, { childList: true, subtree: true });
  });
  for (let count = 0; count < 30; count++) {
    await page.keyboard.press('e');
    await page.waitForTimeout(700);
  }
  const times = (await page.evaluate(() => (window as unknown as { times: number[] }).times)).slice(5);
  const [median, slow] = [at(times, 0.5), at(times, 0.95)];
  write(
    `Proof beside the sheet: follows a key in ${whole(median)} (bar ${PROOFING[0]}), at the 95th percentile in ${whole(slow)} (bar ${PROOFING[1]}), ${times.length} keys.`,
  );
  return times.length > 20 && median <= PROOFING[0] && slow <= PROOFING[1];
}

/** Until ten records are proved. */
async function proving(page: Page): Promise<boolean> {
  const all: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    await page.goto(`${lumbix.url}/templates`);
    const began = performance.now();
    await page.goto(`${lumbix.url}/templates/full-proposal/prove`, { waitUntil: 'commit' });
    await page.getByText(/can be filed/).waitFor();
    all.push(performance.now() - began);
  }
  write(`Ten records proved in ${whole(at(all, 0.5))} (bar ${PROVING}).`);
  return at(all, 0.5) <= PROVING;
}

await lumbix.start();
// The longest deal is cut to the forty lines that the bars are for.
await lumbix.ask(
  'crm',
  `delete from records where set = 'LineItems' and body ->> 'deal_id' = 'D-1203' and (body ->> 'position')::int > 40`,
);
const browser = await chromium.launch(chromiumOptions);
try {
  const context = await browser.newContext(await signedIn(browser, lumbix.url));
  const page = await context.newPage();
  const { template } = (await (
    await context.request.get(`${lumbix.url}/api/templates/full-proposal/draft`)
  ).json()) as { template: Template };
  await context.request.post(`${lumbix.url}/api/drafts`, { data: { template: largeTemplate(template) } });
  const isQuick = [
    await measure(page, 'Proposal of 40 lines', '/templates/full-proposal?record=D-1203'),
    await measure(page, 'Sixty pages, 300 blocks', '/templates/bench-large?record=D-1203'),
    await proofing(page),
    await proving(page),
  ];
  process.exitCode = isQuick.every(Boolean) ? 0 : 1;
} finally {
  await browser.close();
  await lumbix.stop();
}
