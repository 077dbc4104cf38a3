import { expect, test, type Locator, type Page } from '@playwright/test';
import { inDatabase } from './callers';
import { dropDrafts } from './drafts';
import { open, publishByKeys, saved, sheet } from './sheet';

test.afterEach(({ page }) => dropDrafts(page));

const panel = (page: Page) => page.getByRole('region', { name: 'Properties' });
/** Goes to something by the Tab key. */
async function tabTo(page: Page, wanted: Locator): Promise<void> {
  await expect(wanted).toBeVisible();
  const isThere = () => wanted.evaluate((element) => element === document.activeElement);
  for (let presses = 0; presses < 250; presses++) {
    if (await isThere()) return;
    await page.keyboard.press('Tab');
  }
  expect(await isThere(), 'reached by the Tab key').toBe(true);
}
/** Chooses from a list by the beginning of what is looked for. */
async function choose(page: Page, list: Locator, words: string): Promise<void> {
  await tabTo(page, list);
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('.p-select-filter')).toBeFocused();
  await page.keyboard.type(words);
  // A list forgets its mark a moment after it has opened; what was searched for stays marked.
  await page.waitForTimeout(150);
  await expect(page.locator('.p-select-option.p-focus')).toContainText(new RegExp(words, 'i'));
  await page.keyboard.press('Enter');
}
/** Does a command by finding it. */
async function command(page: Page, words: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('dialog', { name: 'Find anything' })).toBeVisible();
  await page.keyboard.type(words);
  await expect(page.getByRole('option', { name: new RegExp(words, 'i') }).first()).toBeVisible();
  await page.keyboard.press('Enter');
}

test('a section with a condition, a column, a group, a proof and a publication, by keyboard alone', async ({
  page,
}) => {
  test.setTimeout(90_000);
  const data = { name: 'Quote by keyboard', kind: 'quote', recordType: 'Deal', from: 'starter' };
  const { id } = (await (await page.request.post('/api/drafts/new', { data })).json()) as { id: string };
  await open(page, `${id}?record=D-1187`);

  await tabTo(page, sheet(page));
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Enter');
  await page.keyboard.type('The chimney is part of the works.');
  await command(page, 'Insert: print only when');
  await choose(page, panel(page).getByRole('combobox', { name: 'Add a rule', exact: true }), 'heating');
  await expect(page.locator('.margin-notes')).toContainText(/when the heating is/);

  await tabTo(page, sheet(page));
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Enter');
  await command(page, 'Insert: line table');
  const table = sheet(page).locator('table.lines').last();
  await expect(table).toBeVisible();
  await choose(page, page.getByRole('combobox', { name: 'Add a column' }), 'section');
  await expect(table.locator('thead th').last()).toHaveText('Section');
  await tabTo(page, page.getByRole('button', { name: 'The whole table' }));
  await page.keyboard.press('Enter');
  await choose(page, panel(page).getByRole('combobox', { name: 'Grouped by' }), 'section');
  await expect(panel(page).getByRole('textbox', { name: 'Heading of a group' })).toHaveValue('=[group_name]');
  await saved(page);

  await tabTo(page, page.getByRole('link', { name: 'Prove on ten' }));
  await page.keyboard.press('Enter');
  await expect(page.getByText(/can be filed/)).toBeVisible({ timeout: 20_000 });
  await tabTo(page, page.getByRole('link', { name: 'Quote by keyboard' }).first());
  await page.keyboard.press('Enter');
  await expect(sheet(page)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('dialog', { name: 'Publish the draft' }).getByLabel('What is different')).toBeFocused();
  await publishByKeys(page, 'The chimney is said', 'They wait for their prices', 1);
  await inDatabase('update templates set archived_at = now() where id = $1', [id]);
});
