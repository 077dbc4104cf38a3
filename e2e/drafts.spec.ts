import { expect, test, type Page } from '@playwright/test';
import { SIGNED_IN } from './callers';
import { dropDrafts } from './drafts';
import { publishByKeys } from './sheet';

test.afterEach(({ page }) => dropDrafts(page));

const ID = 'delivery-note';
const openSheet = async (page: Page) => {
  await page.goto(`/templates/${ID}/figures`);
  await expect(page.getByText(/all in order/)).toBeVisible();
};
const name = (page: Page) => page.locator('[data-key="total_weight"] .label');
const rename = async (page: Page, label: string) => {
  await name(page).click();
  await page.getByRole('textbox', { name: 'Label', exact: true }).fill(label);
  await page.keyboard.press('Enter');
};
const state = (page: Page, words: string) => expect(page.getByText(words, { exact: true })).toBeVisible();

test('a change is saved by itself and found again; the draft is discarded, brought back, and published with a note', async ({
  page,
}) => {
  await openSheet(page);
  await state(page, 'No changes');
  const before = await name(page).textContent();
  await rename(page, 'Weight of all');
  await state(page, 'Saved');
  await page.reload();
  await expect(name(page)).toHaveText('Weight of all');
  await page.goto('/templates');
  await expect(page.getByRole('listitem').filter({ hasText: 'Delivery note' })).toContainText('Draft by Tamar Whitlow');

  await openSheet(page);
  await page.getByRole('button', { name: 'Discard the draft' }).click();
  await expect(name(page)).toHaveText(before!);
  await state(page, 'No changes');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(name(page)).toHaveText('Weight of all');
  await state(page, 'Saved');

  await page.getByRole('button', { name: 'Publish' }).click();
  const dialog = page.getByRole('dialog', { name: 'Publish the draft' });
  await expect(dialog.getByLabel('What is different')).toBeFocused();
  await expect(dialog.getByRole('list', { name: 'Records that it is proved on' }).getByRole('listitem')).toHaveCount(
    10,
  );
  await expect(dialog.getByText(/\d+ of 10 can be filed/)).toBeVisible();
  await publishByKeys(page, 'Says what is weighed', 'They wait for their addresses', 2);
  await page.getByRole('button', { name: 'Versions' }).click();
  await expect(page.getByRole('dialog', { name: 'Versions' }).getByRole('listitem').first()).toContainText(
    'Says what is weighed',
  );
});

test('of two windows the second is told; where both change, nothing is lost', async ({ page, browser }) => {
  await openSheet(page);
  const other = await (await browser.newContext({ storageState: SIGNED_IN, locale: 'en-GB' })).newPage();
  await openSheet(other);
  await expect(other.getByText('Also open: you, in another window')).toBeVisible();
  await rename(page, 'Mine');
  await state(page, 'Saved');
  await rename(other, 'Other');
  const conflict = other.getByRole('dialog', { name: 'You changed this draft in another window' });
  await expect(conflict).toBeVisible();
  await conflict.getByRole('button', { name: 'Look at the difference' }).click();
  await expect(conflict.getByRole('row').filter({ hasText: 'Changed' })).toContainText('Other');
  await conflict.getByRole('button', { name: 'Keep mine as a new template' }).click();
  await expect(other).toHaveURL(new RegExp(`/templates/${ID}-2/figures`));
  await expect(name(other)).toHaveText('Other');
  await expect(name(page)).toHaveText('Mine');
  await other.goto('/templates');
  await expect(other.getByRole('listitem').filter({ hasText: '(2)' })).toContainText('not published yet');
  await other.close();
});

test('without a connection a change is kept in the browser, and saved once the server is there again', async ({
  page,
}) => {
  await openSheet(page);
  await page.route('**/draft', (route) => (route.request().method() === 'PUT' ? route.abort() : route.continue()));
  await rename(page, 'Kept here');
  await state(page, 'Not saved: no connection. Kept in this browser.');
  await page.reload();
  await expect(name(page)).toHaveText('Kept here');
  await expect(page.getByText('Changes brought back that were not saved')).toBeVisible();
  await page.unroute('**/draft');
  await page.evaluate(() => window.dispatchEvent(new Event('online')));
  await state(page, 'Saved');
});

test('two states of a template are compared in words and on the page, and one is gone back to', async ({ page }) => {
  await page.goto('/templates/glasshouse-quote?record=D-1187');
  const heading = page.locator('.sheet-text').getByRole('heading', { name: 'Crane on site' });
  await heading.click();
  await page.keyboard.press('End');
  await page.keyboard.type(' this time');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Versions' }).click();
  await page.getByRole('link', { name: 'Compare, or go back to one' }).click();
  const words = page.getByRole('complementary', { name: 'What differs' });
  await expect(words).toContainText('Crane on site this time');
  await expect(words.locator('del')).toHaveText('Crane on site');
  await expect(page.getByRole('region', { name: 'the draft' }).getByRole('figure').first()).toBeVisible();
  await page.getByRole('button', { name: /^Go back to version/ }).click();
  await expect(heading).toHaveText('Crane on site');
  await page.locator('.sheet-text').focus();
  await page.keyboard.press('Control+z');
  await expect(heading).toHaveText('Crane on site this time');
});

test('a draft is replayed over what was filed: what would differ is told by its cause, each beside the other', async ({
  page,
}) => {
  for (const deal of ['D-1227', 'D-1228']) {
    await page.goto(`/records/Deal/${deal}/produce/glasshouse-quote`);
    await page.getByRole('button', { name: 'File', exact: true }).click();
    await expect(page.getByText('is filed and attached to the deal')).toBeVisible();
  }
  await page.goto('/templates/glasshouse-quote/replay');
  await expect(page.getByText(/^All \d+ would have come out the same\.$/)).toBeVisible();

  await page.goto('/templates/glasshouse-quote/figures');
  await expect(page.getByText(/all in order/)).toBeVisible();
  await page.locator('[data-key="tax_total"] .label').click();
  const formula = page.getByRole('textbox', { name: /^Formula of/ });
  await formula.fill('SUM(tax_rows.tax_amount) + AMOUNT(0.02)');
  await expect(async () => {
    await formula.press('Enter', { timeout: 500 });
    await expect(formula).toBeHidden({ timeout: 500 });
  }).toPass();
  await state(page, 'Saved');
  await page.goto('/templates/glasshouse-quote/prove');
  await page.getByRole('link', { name: 'Replay on filed documents' }).click();
  const total = page.getByRole('button', { name: /^Total: \d+ documents differ by up to 0.02$/ });
  await expect(total).toBeVisible({ timeout: 20_000 });
  await total.click();
  await page.getByRole('link', { name: 'Side by side' }).first().click();
  await expect(page.getByText('over the data of')).toBeVisible();
  await expect(page.getByRole('region', { name: 'the draft' }).getByRole('figure').first()).toBeVisible();
  await expect(page.locator('a.differs').first()).toBeAttached();
});
