import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { clearFaults, crmUrl, fault } from './crm';

test.afterEach(({ request }) => clearFaults(request));

const proofOf = async (page: Page, deal: string) => {
  await page.goto(`/records/Deal/${deal}/produce/glasshouse-quote`);
  await expect(page.locator('[data-page="1"] svg')).toBeVisible();
};
const fileButton = (page: Page) => page.getByRole('button', { name: 'File', exact: true });

test('File waits for the proof of the edition that was chosen; edition and leaf are in the address', async ({
  page,
}) => {
  await proofOf(page, 'D-1193');
  await page.getByRole('tab', { name: 'This document' }).click();
  await expect(page).toHaveURL(/leaf=document/);
  // The next proof is held up until it was looked at what the page says meanwhile.
  let goOn = () => {};
  const held = new Promise<void>((resolve) => (goOn = resolve));
  await page.route('**/api/productions', async (route) => {
    await held;
    await route.continue();
  });
  await page.getByRole('combobox', { name: 'Edition' }).click();
  await page.getByRole('option', { name: 'Deutsch' }).click();
  await expect(page.getByText('Making the proof …')).toBeVisible();
  await expect(fileButton(page)).toBeDisabled();
  goOn();
  await expect(page.getByText('Making the proof …')).toBeHidden();
  await expect(fileButton(page)).toBeEnabled();
  await expect(page).toHaveURL(/edition=de/);
  await page.goBack();
  await expect(page).not.toHaveURL(/edition=/);
  await expect(page.getByRole('combobox', { name: 'Edition' })).toContainText('As the deal says');
});

test('the first proof is sent for with its page, and once', async ({ page }) => {
  const asked: string[] = [];
  page.on('request', (request) => {
    if (request.url().includes('/api/productions')) asked.push(`${request.method()} ${request.resourceType()}`);
  });
  await proofOf(page, 'D-1193');
  // By a fetch of the page's script it would be "GET fetch".
  expect(asked).toEqual(['GET other']);
});

test('pages far from the view come later: scrolling finds them drawn', async ({ page }) => {
  const drawnLater = page.waitForResponse(/\/api\/productions\/[^/]+\/pages\?skip=2/);
  await proofOf(page, 'D-1203');
  const { pages } = (await (await drawnLater).json()) as { pages: { digest: string }[] };
  expect(pages).toHaveLength(5);
  await page.getByRole('figure', { name: 'Page 7 of 7' }).scrollIntoViewIfNeeded();
  await expect(page.locator('[data-page="7"] svg')).toBeVisible();
  // Only what is near is drawn.
  await expect(page.locator('[data-page="2"] svg')).toHaveCount(0);
});

test('a page that cannot be sent for says so, and comes with the next proof', async ({ page }) => {
  await page.route(/\/pages\?skip/, (route) => route.abort());
  await proofOf(page, 'D-1203');
  await page.getByRole('figure', { name: 'Page 7 of 7' }).scrollIntoViewIfNeeded();
  await expect(page.getByText('Page 7 did not come. Refresh the proof (R).')).toBeVisible();
  await page.unroute(/\/pages\?skip/);
  await page.keyboard.press('r');
  await expect(page.locator('[data-page="7"] svg')).toBeVisible();
});

test('a filing that is under way is still shown after a reload', async ({ page, request }) => {
  await proofOf(page, 'D-1196');
  await fault(request, { on: 'attach', kind: 'status', status: 500, times: 1_000 });
  await fileButton(page).click();
  await expect(page.getByRole('status').filter({ hasText: 'Waiting.' })).toBeVisible();
  const number = (await page.locator('footer b').first().textContent())!;
  await page.reload();
  await expect(page.locator('footer b').first()).toHaveText(number);
  await expect(fileButton(page)).toBeHidden();
  await clearFaults(request);
  const filed = page.getByText('is filed and attached to the deal');
  // Its own turn may come first.
  await Promise.race([page.getByRole('button', { name: 'Try now' }).click(), expect(filed).toBeVisible()]);
  await expect(filed).toBeVisible();
});

test('a reason for skipping outlives a look at the record; Open the deal opens the input, and leads back', async ({
  page,
}) => {
  await proofOf(page, 'D-1202');
  await page.getByRole('button', { name: 'Open the deal' }).first().click();
  await expect(page.getByRole('textbox', { name: /of line 4/ })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('textbox', { name: /of line 4/ })).toBeHidden();
  await page.getByRole('link', { name: 'Back to the proof' }).click();
  await expect(page).toHaveURL(/D-1202\/produce\/glasshouse-quote$/);
  await proofOf(page, 'D-1187');
  await page.getByRole('button', { name: 'Skip with a reason' }).click();
  await page.getByRole('textbox', { name: 'Reason for skipping' }).fill('agreed with them');
  await page.keyboard.press('Enter');
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Deals' }).click();
  await expect(page.locator('td a').first()).toBeVisible();
  await proofOf(page, 'D-1187');
  await expect(page.getByText('Skipped: “agreed with them”')).toBeVisible();
});

test('Produce on paper is the document alone, each page marked as not filed', async ({ page }) => {
  await proofOf(page, 'D-1203');
  await page.evaluate(() => {
    window.print = () => document.body.setAttribute('data-printed', '');
  });
  await page.keyboard.press('Control+p');
  // It prints once all pages are drawn.
  await expect(page.locator('body[data-printed]')).toBeAttached();
  const path = join(mkdtempSync(join(tmpdir(), 'lumbix-print-')), 'proof.pdf');
  await page.pdf({ path, preferCSSPageSize: true });
  const pages = execFileSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' }).split('\f').slice(0, -1);
  expect(pages.map((text) => text.trim())).toEqual(Array.from({ length: 7 }, () => 'Proof: not filed'));
});

test.describe('in German', () => {
  test.use({ locale: 'de-DE' });
  test('a number is read in the notation that is shown, and asked for where it may be two', async ({ page }) => {
    await page.goto('/records/Deal/D-1204');
    const price = page.getByRole('button', { name: /^Unit price of line 1:/ });
    const before = (await price.textContent())!.trim();
    const input = page.getByRole('textbox', { name: 'Unit price of line 1' });
    await price.click();
    await input.fill('5.800');
    await page.keyboard.press('Enter');
    await expect(price).toContainText('5.800,00');
    await price.click();
    await input.fill('5.80');
    await page.keyboard.press('Enter');
    await expect(page.getByText('Which number is it?')).toBeVisible();
    await page.getByRole('button', { name: '5,8', exact: true }).click();
    await expect(price).toContainText('5,80');
    await price.click();
    await input.fill('viel');
    await page.keyboard.press('Enter');
    await expect(page.getByText('Unit price is a number, such as 1.250,5.')).toBeVisible();
    await expect(input).toHaveValue('viel');
    await page.keyboard.press('Escape');
    await expect(price).toBeFocused();
    await page.keyboard.press('Control+z');
    await expect(price).toContainText('5.800,00');
    await page.keyboard.press('Control+z');
    await expect(price).toContainText(before);
    await page.keyboard.press('Control+Shift+z');
    await expect(price).toContainText('5.800,00');
    await page.keyboard.press('Control+z');
    await expect(price).toContainText(before);
  });
});

test('Ctrl Z within an input belongs to the input; a refused value stays with its reason', async ({
  page,
  request,
}) => {
  await page.goto('/records/Deal/D-1205');
  const price = page.getByRole('button', { name: /^Unit price of line 1:/ });
  const input = page.getByRole('textbox', { name: 'Unit price of line 1' });
  const before = (await price.textContent())!.trim();
  await price.click();
  await input.fill('77');
  await page.keyboard.press('Enter');
  await expect(price).toContainText('77');
  await price.click();
  await input.pressSequentially('1');
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/^Undone/)).toBeHidden();
  await input.fill('99');
  await page.keyboard.press('Escape');
  await expect(price).toContainText('77');
  await fault(request, { on: 'patch', kind: 'status', status: 400, times: 1 });
  await price.click();
  await input.fill('78');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: /\w/ }).first()).toBeVisible();
  await expect(input).toHaveValue('78');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone: Unit price')).toBeVisible();
  await expect(price).toContainText(before);
});

test('from an account, by a link of its own page in the CRM, to its filed letter and back to its deals', async ({
  page,
}) => {
  await page.goto(`${crmUrl}/accounts/A-104`);
  const way = await page.getByRole('link', { name: 'Open in Lumbix' }).getAttribute('href');
  expect(new URL(way!).pathname).toBe('/records/Account/A-104');
  await page.goto(new URL(way!).pathname);
  await expect(page.getByRole('heading', { name: 'Deals' })).toBeVisible();
  await page.getByRole('button', { name: 'Produce Work in hand' }).click();
  await expect(page.getByLabel('Page 1 of 1')).toBeVisible();
  await page.getByRole('button', { name: 'File', exact: true }).click();
  await expect(page.getByText('is filed and attached to the account')).toBeVisible();
  await page.goto('/records/Account?search=campolindo');
  await expect(page.getByRole('row', { name: /Viveros Campolindo/ })).toContainText('Spain');
  await expect(page.getByRole('link', { name: /letter/ })).toBeVisible();
  await page.getByRole('link', { name: 'Viveros Campolindo' }).click();
  await expect(page.getByRole('heading', { name: /^Deals/ })).toBeVisible();
  await page.getByRole('table').last().getByRole('link').first().click();
  await expect(page).toHaveURL(/\/records\/Deal\//);
  await page.getByRole('link', { name: 'Account', exact: true }).click();
  await expect(page).toHaveURL(/\/records\/Account\/A-104/);
});

test('templates that do not fit a record are put away, with the reason; produced all the same, they ask for one', async ({
  page,
}) => {
  await page.goto('/records/Deal/D-1191');
  await expect(page.getByRole('button', { name: 'Deposit invoice', exact: true })).toBeHidden();
  await page.getByRole('button', { name: /templates do not fit this deal/ }).click();
  await expect(page.getByText(/^A deposit is invoiced once the deal is won; this one is at/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Deposit invoice', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Does not fit this deal' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'File', exact: true })).toBeDisabled();
});
