import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { inDatabase } from './callers';
import { dropDrafts } from './drafts';

test.afterEach(({ page }) => dropDrafts(page));

const sheet = (page: Page) => page.locator('.sheet-text');
const saved = (page: Page) => expect(page.getByText('Saved', { exact: true })).toBeVisible();
async function open(page: Page, id: string): Promise<void> {
  await page.goto(`/templates/${id}`);
  await expect(sheet(page)).toBeVisible();
  // Values are there once the record was read.
  await expect(page.getByRole('button', { name: /^Name .*/ }).first()).toContainText(/\w/);
}
async function begin(page: Page, name: string, way: string, kind?: string): Promise<void> {
  await page.goto('/templates');
  await page.getByRole('button', { name: 'New template' }).click();
  const dialog = page.getByRole('dialog', { name: 'New template' });
  await dialog.getByLabel('Name', { exact: true }).fill(name);
  await dialog.getByText(way).click();
  if (kind) {
    await dialog.getByRole('combobox', { name: 'Kind of document' }).click();
    await page.getByRole('option', { name: kind, exact: true }).click();
  }
  await dialog.getByRole('button', { name: 'Begin' }).click();
  await expect(sheet(page)).toBeVisible();
}
const insert = async (page: Page, what: string) => {
  await page.getByRole('button', { name: 'Insert', exact: true }).click();
  await page.getByRole('menuitem', { name: what }).click();
};
/** Takes the formula that is written; where a completion is offered, Enter takes that first. */
const takeFormula = (page: Page) =>
  expect(async () => {
    await page.getByRole('textbox', { name: 'Formula of the value' }).press('Enter', { timeout: 500 });
    await expect(sheet(page)).toBeFocused({ timeout: 1_000 });
  }).toPass();
const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

test('from empty to a letter that is published and filed for three records', async ({ page }) => {
  test.setTimeout(120_000);
  await begin(page, 'Visit letter', 'An empty sheet', 'letter');
  await expect(sheet(page)).toBeFocused();
  await page.keyboard.type('=[');
  await page.getByRole('textbox', { name: 'Formula of the value' }).fill('deal.account.name');
  await expect(page.locator('.live strong')).toContainText(/\w/);
  await takeFormula(page);
  await page.keyboard.press('Enter');
  await page.keyboard.type('# Our visit');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Dear ');
  await page.getByRole('button', { name: /^Family name/ }).click();
  await page.keyboard.type(', we bring:');
  await page.keyboard.press('Enter');
  await page.keyboard.type('- a ladder');
  await page.keyboard.press('Enter');
  await page.keyboard.type('two people');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await insert(page, 'Table of words');
  for (const [at, word] of ['Day', 'Hour', 'Who', 'Monday', 'nine', 'both of us'].entries()) {
    if (at > 0) await page.keyboard.press('Tab');
    await page.keyboard.type(word);
  }
  await page.getByLabel('Pictures to put in').setInputFiles({ name: 'dot.png', mimeType: 'image/png', buffer: PIXEL });
  await expect(page.locator('.computed img')).toBeVisible();
  await page.getByLabel('In words, for those who cannot see it').fill('A dot');
  await page.keyboard.press('Enter');

  await page.getByRole('link', { name: 'Open the figure sheet' }).click();
  await page.getByRole('button', { name: 'Add a figure' }).last().click();
  await page.getByRole('textbox', { name: 'Name in formulas' }).fill('pieces');
  await page.keyboard.press('Enter');
  await page.getByRole('combobox', { name: 'Type' }).click();
  await page.getByRole('option', { name: 'Number', exact: true }).click();
  await page.getByRole('textbox', { name: /^Formula of/ }).fill('SUM(lines.quantity)');
  await page.keyboard.press('Enter');
  await saved(page);
  await page.goBack();
  await expect(sheet(page)).toContainText('both of us');
  await page.getByText(', we bring:').click();
  await page.keyboard.press('End');
  await page.getByRole('button', { name: /^New figure/ }).click();
  await page.keyboard.type(' pieces');
  await saved(page);

  await page.getByRole('button', { name: 'Publish' }).click();
  await page.keyboard.type('The first letter');
  await page.keyboard.press('Enter');
  const stopped = page.getByRole('dialog', { name: 'Some records could not be filed' });
  await expect(stopped.or(page.getByText('Published as version 1'))).toBeVisible();
  if (await stopped.isVisible()) {
    await page.keyboard.type('Those have no contact');
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText('Published as version 1')).toBeAttached();

  for (const [deal, account, pieces] of [
    ['D-1187', 'Marlow Fen Nurseries', 39],
    ['D-1203', 'Kestrel Hill Botanic Garden', undefined],
    ['D-1197', 'Alpengrün Gärtnerei', 179],
  ] as const) {
    await page.goto(`/records/Deal/${deal}/produce/visit-letter`);
    await page.getByRole('button', { name: 'File', exact: true }).click();
    await expect(page.getByText('is filed and attached to the deal')).toBeVisible();
    const text = await filedText(page);
    expect(text).toContain('Our visit');
    expect(text).toMatch(/Monday\s+nine\s+both of us/);
    if (account) expect(text).toContain(account);
    if (pieces) expect(text).toContain(`${pieces} pieces`);
  }
  await inDatabase("update templates set archived_at = now() where id = 'visit-letter'");
});

/** The text of the document that was just filed. */
async function filedText(page: Page): Promise<string> {
  await page.getByRole('button', { name: 'Open the PDF' }).click();
  await page.waitForURL(/\/register\//);
  const pdf = await page.request.get(`/api/documents/${page.url().split('/').at(-1)}/file`);
  const path = join(mkdtempSync(join(tmpdir(), 'lumbix-letter-')), 'letter.pdf');
  writeFileSync(path, await pdf.body());
  return execFileSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' });
}

test('every template opens on its sheet, and is not changed by that', async ({ page }) => {
  test.setTimeout(90_000);
  const answer = await page.request.get('/api/templates');
  for (const { id, name } of (await answer.json()) as { id: string; name: string }[]) {
    const before = await (await page.request.get(`/api/templates/${id}/file`)).text();
    await open(page, id);
    await expect(page.getByRole('textbox', { name: `Sheet of ${name}` })).toBeVisible();
    await expect(page.getByText('No changes', { exact: true })).toBeVisible();
    expect(await (await page.request.get(`/api/templates/${id}/file`)).text()).toBe(before);
  }
});

test('a field is dragged onto the sheet, and everything is one history', async ({ page }) => {
  await open(page, 'glasshouse-quote');
  const heading = page.locator('.sheet-text h2:visible').first();
  const before = await heading.textContent();
  await heading.scrollIntoViewIfNeeded();
  const from = (await page
    .getByRole('button', { name: /^Number D-/ })
    .first()
    .boundingBox())!;
  const to = (await heading.boundingBox())!;
  await page.mouse.move(from.x + 20, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(from.x + 60, from.y + 20, { steps: 4 });
  await page.mouse.move(to.x + 30, to.y + to.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect(heading.locator('.value')).toHaveText(/^D-/);
  await saved(page);
  await page.getByRole('link', { name: 'Open the figure sheet' }).click();
  await expect(page.locator('[data-key="total"]')).toBeVisible();
  await page.goBack();
  await expect(heading.locator('.value')).toHaveText(/^D-/);
  await heading.click();
  await page.keyboard.press('End');
  await page.keyboard.type(' now');
  await page.keyboard.press('Control+z');
  await expect(heading).not.toContainText('now');
  await page.keyboard.press('Control+y');
  await expect(heading).toContainText('now');
  expect(before).not.toContain('now');
});

test('what is pasted from elsewhere keeps its headings, lists, tables and links, and nothing that runs', async ({
  page,
}) => {
  await begin(page, 'Pasted', 'An empty sheet');
  await expect(sheet(page)).toBeFocused();
  await paste(
    page,
    `<style>p { color: red }</style><script>window.hurt = 1</script>
     <h4 onclick="hurt()">Terms</h4><p style="color:red" class="x">Pay <b>now</b> at <a href="https://example.com/pay">our page</a>
     or <a href="javascript:hurt()">here</a>.<img src="x" onerror="window.hurt = 1"></p>
     <ul><li><p>One</p><ul><li>Inner</li></ul></li><li>Two</li></ul>
     <p class="MsoListParagraph" style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">1.<span>&nbsp; </span></span>First</p>
     <p class="MsoListParagraph" style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">2.</span>Second</p>
     <table><tr><th>A</th><th>B</th></tr><tr><td><p>1</p></td><td>2</td></tr><tr><td>3</td></tr></table>`,
  );
  const text = sheet(page);
  await expect(text.locator('h3')).toHaveText('Terms');
  await expect(text.locator('strong')).toHaveText('now');
  await expect(text.locator('a')).toHaveCount(1);
  await expect(text.locator('ul li')).toHaveText(['One', 'Inner', 'Two']);
  await expect(text.locator('ol li')).toHaveText(['First', 'Second']);
  await expect(text.locator('.cell')).toHaveText(['A', 'B', '1', '2', '3', '']);
  await expect(text.locator('img, script, style, [style*="red"], [onclick]')).toHaveCount(0);
  expect(await page.evaluate('window.hurt')).toBeUndefined();
  await saved(page);
});

test('five megabytes of foreign HTML are cut to what is taken at once', async ({ page }) => {
  await begin(page, 'Much', 'An empty sheet');
  await expect(sheet(page)).toBeFocused();
  const line =
    '<p onmouseover="x()" style="mso-bidi:1">A line of text with <b>bold</b> words in it.</p><script>x()</script>';
  const began = Date.now();
  await paste(page, line.repeat(Math.ceil(5_000_000 / line.length)));
  await expect(page.getByText('Only the first 2,000 blocks were pasted.')).toBeVisible();
  process.stdout.write(`      5 MB pasted in ${Date.now() - began} ms\n`);
  await expect(sheet(page).locator('p')).toHaveCount(2_000);
});

/** Pastes HTML as another program puts it into the clipboard. */
async function paste(page: Page, html: string): Promise<void> {
  await page.evaluate((given) => {
    const data = new DataTransfer();
    data.setData('text/html', given);
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, html);
}

test('words are found and replaced, in formulas too, in one step', async ({ page }) => {
  await open(page, 'order-confirmation');
  const text = sheet(page);
  await text.locator('h1').click();
  await page.keyboard.press('Control+f');
  await page.getByRole('textbox', { name: 'Find on the sheet' }).fill('your order');
  const count = page.getByRole('search').getByRole('status');
  await expect(count).toHaveText(/^\d+$/);
  await page.keyboard.press('Enter');
  await expect(count).toHaveText(/^1 of \d+$/);
  await page.getByRole('textbox', { name: 'Replace with' }).fill('your wish');
  await page.getByRole('button', { name: 'Replace all' }).click();
  await expect(count).toHaveText('nothing');
  await expect(text.locator('h1')).toContainText('your wish');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await expect(text.locator('h1')).toContainText('your order');
});

test('a mistake is told in place, and the draft stays as it is written', async ({ page }) => {
  await begin(page, 'With mistakes', 'An empty sheet');
  await expect(sheet(page)).toBeFocused();
  await page.keyboard.type('A =[');
  await page.getByRole('textbox', { name: 'Formula of the value' }).fill('NOSUCH(deal.nothing)');
  await takeFormula(page);
  const value = sheet(page).locator('.value');
  await expect(value).toHaveAttribute('data-fault', 'error');
  await value.click();
  await expect(
    page
      .getByLabel('Properties')
      .getByText(/NOSUCH/)
      .first(),
  ).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(value).toHaveAttribute('data-fault', 'error');
});

test('a connection that is lost loses nothing', async ({ page, context }) => {
  await open(page, 'delivery-note');
  await sheet(page).locator('h1, p').first().click();
  await context.setOffline(true);
  await page.keyboard.type('Written away ');
  await expect(page.getByText('Not saved: no connection. Kept in this browser.')).toBeVisible();
  await context.setOffline(false);
  await saved(page);
  await page.reload();
  await expect(sheet(page)).toContainText('Written away');
});
