import { expect, test, type Page } from '@playwright/test';
import { dropDrafts } from './drafts';
import { begin, open, saved, sheet } from './sheet';

test.afterEach(({ page }) => dropDrafts(page));

const panel = (page: Page) => page.getByRole('region', { name: 'Properties' });
const columns = (page: Page) => page.getByRole('group', { name: 'Columns of the table' });
const headings = (page: Page) => sheet(page).locator('table.lines').first().locator('thead th');

async function insertEntry(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Insert', exact: true }).click();
  await page.getByRole('menuitem', { name, exact: true }).click();
}
async function addColumn(page: Page, words: string, label: string): Promise<void> {
  await columns(page).getByRole('combobox', { name: 'Add a column' }).click();
  await page.locator('.p-select-filter').fill(words);
  await page.getByRole('option', { name: label, exact: true }).click();
}

test('a line table is made for its list, and designed on the sheet', async ({ page }) => {
  await begin(page, 'Table on the sheet', 'An empty sheet');
  await insertEntry(page, 'Line table: line items');
  await expect(headings(page)).toHaveText(['', 'Item', 'Quantity', 'Unit', 'Unit price', 'Discount', 'Net']);
  await expect(page.locator('.margin-notes')).toContainText('for each line item that is not optional');
  await addColumn(page, 'section', 'Section');
  await expect(headings(page).last()).toHaveText('Section');
  await expect(panel(page).getByRole('heading', { name: 'Section' })).toBeVisible();

  // It is moved with the mouse, made wider with the keys, and has one step for each in the history.
  const from = (await columns(page).getByRole('button', { name: 'Column Section' }).boundingBox())!;
  const to = (await columns(page).getByRole('button', { name: 'Column Quantity' }).boundingBox())!;
  await page.mouse.move(from.x + 20, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(from.x, from.y + 10, { steps: 4 });
  await page.mouse.move(to.x + 3, to.y + 8, { steps: 8 });
  await page.mouse.up();
  await expect(headings(page)).toHaveText(['', 'Item', 'Section', 'Quantity', 'Unit', 'Unit price', 'Discount', 'Net']);
  const group = columns(page).getByRole('button', { name: 'Column Section' });
  await group.focus();
  await page.keyboard.press('Alt+ArrowRight');
  await expect(headings(page).nth(3)).toHaveText('Section');
  // It keeps the focus when its button has followed it.
  await expect(async () =>
    expect((await group.boundingBox())!.x).toBeCloseTo((await headings(page).nth(3).boundingBox())!.x, 0),
  ).toPass();
  await expect(group).toBeFocused();
  const before = (await headings(page).nth(3).boundingBox())!.width;
  for (let times = 0; times < 5; times++) await page.keyboard.press('Shift+ArrowRight');
  await expect(async () =>
    expect((await headings(page).nth(3).boundingBox())!.width).toBeGreaterThan(before + 20),
  ).toPass();
  await page.keyboard.press('Delete');
  await expect(headings(page)).toHaveText(['', 'Item', 'Quantity', 'Unit', 'Unit price', 'Discount', 'Net']);
  await page.keyboard.press('Control+z');
  await expect(headings(page).nth(3)).toHaveText('Section');
  await saved(page);
});

test('a cell stands for its column; its heading, its condition and its look are changed for all rows', async ({
  page,
}) => {
  await open(page, 'glasshouse-quote?record=D-1187');
  const cell = sheet(page).locator('table.lines tbody tr').nth(1).locator('td').nth(2);
  await cell.click();
  await cell.click();
  await expect(panel(page).getByRole('heading', { name: 'Qty' })).toBeVisible();
  await panel(page).getByRole('textbox', { name: 'Heading' }).fill('Pieces');
  await page.keyboard.press('Tab');
  await expect(headings(page).nth(2)).toHaveText('Pieces');
  await panel(page).getByRole('combobox', { name: 'Add a rule' }).click();
  await page.locator('.p-select-filter').fill('heating');
  await page.getByRole('option', { name: 'Heating', exact: true }).click();
  await panel(page).getByRole('combobox', { name: 'How Heating is compared' }).click();
  await page.getByRole('option', { name: 'is blank' }).click();
  await expect(headings(page).filter({ hasText: 'Pieces' })).toHaveCount(0);
  await expect(columns(page)).toContainText('Left out for this record:');
  await columns(page).getByRole('button', { name: 'Pieces', exact: true }).click();
  await panel(page).getByRole('button', { name: 'The whole table' }).click();
  await expect(panel(page).getByRole('heading', { name: 'Line table' })).toBeVisible();
});

test('a table is grouped, its optional lines get a table of their own, and totals are put in with their figures', async ({
  page,
}) => {
  await begin(page, 'Groups and totals', 'An empty sheet');
  await insertEntry(page, 'Line table: line items');
  await expect(headings(page)).toHaveCount(7);
  await panel(page).getByRole('combobox', { name: 'Grouped by' }).click();
  await page.getByRole('option', { name: 'Section', exact: true }).click();
  await expect(panel(page).getByRole('textbox', { name: 'Heading of a group' })).toHaveValue('=[group_name]');
  await panel(page).getByRole('combobox', { name: 'Optional ones: Optional' }).click();
  await page.getByRole('option', { name: 'in a table of their own' }).click();
  await expect(page.locator('.margin-notes')).toContainText('for each line item that is optional');
  await page.keyboard.press('Control+z');
  await expect(page.locator('.margin-notes')).not.toContainText('for each line item that is optional');

  await sheet(page).focus();
  await insertEntry(page, 'Totals…');
  const dialog = page.getByRole('dialog', { name: 'Totals' });
  await dialog.getByText('Deposit', { exact: true }).click();
  await dialog.getByRole('button', { name: 'Put in' }).click();
  await expect(sheet(page).locator('[data-kind="totals"]')).toContainText(/Subtotal.*Tax.*Total.*Deposit/);
  await page.keyboard.press('Control+z');
  await expect(sheet(page).locator('[data-kind="totals"]')).toHaveCount(0);
  await insertEntry(page, 'Payment schedule');
  await expect(sheet(page)).toContainText('Due on');
  await saved(page);
});
