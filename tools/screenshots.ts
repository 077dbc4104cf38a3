/**
 * Takes the pictures of docs/screenshots/ from a running, fresh demo (`./start --fresh`, then `npm run screenshots`).
 * It files two quotes on the way, as a person would; the others are the demo's.
 */
import { chromium, type Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromiumOptions } from './chromium';

const BASE = process.env.LUMBIX_URL ?? 'http://127.0.0.1:4700';
const OUT = 'docs/screenshots';

const browser = await chromium.launch(chromiumOptions);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });

async function open(path: string): Promise<Page> {
  await page.goto(BASE + path);
  await page.waitForLoadState('networkidle');
  await page.waitForTimeout(900);
  return page;
}
async function take(name: string): Promise<void> {
  // Where nothing is pointed at.
  await page.mouse.move(700, 24);
  await page.screenshot({ path: join(OUT, `${name}.png`) });
}
async function file(deal: string, template = 'glasshouse-quote'): Promise<void> {
  await open(`/records/Deal/${deal}/produce/${template}`);
  const skip = page.getByRole('button', { name: 'Skip with a reason' });
  while (await skip.first().isVisible()) {
    await skip.first().click();
    await page.getByRole('textbox', { name: 'Reason for skipping' }).fill('Agreed with the customer.');
    await page.getByRole('button', { name: 'Skip', exact: true }).click();
  }
  await page.getByRole('button', { name: 'File', exact: true }).click();
  await page.getByText('is filed and attached to the deal').waitFor();
}

await open('/');
await page.getByRole('button', { name: 'Tamar Whitlow' }).waitFor();
await page.getByRole('button', { name: 'Tamar Whitlow' }).click();
await page.getByRole('navigation', { name: 'Places' }).waitFor();
// Filed again it is the next revision.
await file('D-1188');
await openFiled(2);
await take('document');
await printed('printed-quote', 1);
for (const [deal, template, name, number] of [['D-1253', 'glasshouse-quote', 'printed-arabic', 1]] as const) {
  await file(deal, template);
  await openFiled(1);
  await printed(name, number);
}

/** Opens what was filed, once so many of its pages are drawn. */
async function openFiled(pages: number): Promise<void> {
  await page.getByRole('button', { name: 'Open the PDF' }).click();
  await page.waitForURL(/\/register\//);
  await page
    .locator('canvas[data-drawn]')
    .nth(pages - 1)
    .waitFor();
}

/** One page of the document that is open, as the printer would have it. */
async function printed(name: string, number: number): Promise<void> {
  const pdf = await (await page.request.get(`${BASE}/api/documents/${page.url().split('/').at(-1)}/file`)).body();
  const folder = mkdtempSync(join(tmpdir(), 'lumbix-pictures-'));
  writeFileSync(join(folder, 'page.pdf'), pdf);
  execFileSync('pdftoppm', [
    '-png',
    '-r',
    '96',
    '-singlefile',
    '-f',
    String(number),
    join(folder, 'page.pdf'),
    join(OUT, name),
  ]);
  rmSync(folder, { recursive: true });
}

await open('/records/Deal?sort=account');
await page.getByRole('row').nth(4).getByRole('checkbox').click();
await take('deals');
await open('/records/Deal/D-1262');
await take('deal');
await open('/records/Deal/D-1187/produce/glasshouse-quote');
await take('produce');
await page.locator('a[href="lumbix:lines.net deal.lines{D-1187-1}"]').click();
await take('workings');
await open('/records/Deal/D-1213/produce/glasshouse-quote?leaf=document');
await page.getByRole('checkbox', { checked: true }).first().waitFor();
await page.getByRole('checkbox', { checked: true }).last().click();
await page.getByText('is left out').waitFor();
await page.waitForTimeout(900);
await take('this-document');
await open('/records/Deal/D-1206/produce/glasshouse-quote?leaf=workings');
await page.locator('a[href="lumbix:totals.total"]').click();
const agreed = page.getByRole('textbox', { name: 'What Total should come to' });
await agreed.fill('8000');
await agreed.press('Enter');
await page.waitForTimeout(1_500);
await take('work-back');
await open('/templates/glasshouse-quote/figures?record=D-1213');
await page.locator('[data-key="subtotal"]').hover();
await page.screenshot({ path: join(OUT, 'figure-sheet.png') });
await open('/templates/glasshouse-quote?record=D-1213');
await page.locator('.paper .lines').first().click();
await take('template-editor');
await page.locator('.margin-notes').getByRole('button', { name: 'when the house is heated' }).click();
await page.getByRole('region', { name: 'Where it holds' }).waitFor();
await page.getByRole('region', { name: 'Properties' }).getByRole('combobox', { name: 'Add a rule' }).click();
await page.locator('.p-select-filter').fill('site works');
await page.keyboard.press('Enter');
await page.getByText('words to look at').waitFor();
await take('conditions');
await open('/templates/glasshouse-quote/figures?record=D-1213');
await page.locator('[data-key="tax_total"] .label').click();
const formula = page.getByRole('textbox', { name: /^Formula of/ });
await formula.fill('SUM(tax_rows.tax_amount) + AMOUNT(0.01)');
while (await formula.isVisible()) {
  await formula.press('Enter');
  await page.waitForTimeout(400);
}
await open('/templates/glasshouse-quote/replay');
await page.getByText(/^\d+ of \d+ would have come out otherwise/).waitFor();
await page.getByRole('button', { name: /^Total:/ }).click();
await take('replay');
await open('/templates/glasshouse-quote/versions?record=D-1213');
await page.locator('[data-page="1"] svg').nth(1).waitFor();
await take('versions');
await open('/templates/glasshouse-quote/prove');
await page.getByText(/can be filed/).waitFor();
await take('prove-on-ten');
await open('/templates/glasshouse-quote?record=D-1213');
await page.getByRole('button', { name: 'Discard the draft' }).click();
await open('/records/Deal/D-1202/produce/glasshouse-quote');
await take('preflight');
await open('/register');
await take('register');
await open('/templates/glasshouse-quote/plans');
await take('filing');
await open('/templates');
await page.waitForTimeout(4_000);
await take('templates');
await browser.close();
