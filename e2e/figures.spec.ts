import { expect, test, type Page } from '@playwright/test';
import { dropDrafts } from './drafts';

test.afterEach(({ page }) => dropDrafts(page));

const openSheet = async (page: Page, deal: string) => {
  await page.goto(`/templates/glasshouse-quote/figures?record=${deal}`);
  await expect(row(page, 'total').locator('.value')).not.toHaveText('–');
};
const row = (page: Page, key: string) => page.locator(`[data-key="${key}"]`);
const value = (page: Page, key: string) => row(page, key).locator('.value');
const write = async (page: Page, key: string, formula: string) => {
  const name = row(page, key).locator('.name');
  if ((await name.getAttribute('aria-expanded')) === 'false') await name.click();
  await page.locator('.cm-content').click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type(formula);
};
const publish = (page: Page) => page.getByRole('button', { name: 'Publish' });

test('a figure sheet shows its values for a deal, and what hangs together', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Templates' }).click();
  await page.getByRole('link', { name: 'Glasshouse quote' }).click();
  await openSheet(page, 'D-1187');
  await expect(value(page, 'total')).toHaveText('18,436.80 GBP');
  await expect(value(page, 'lines.net')).toHaveText('5,238.00 GBP');
  // What is read through a line's product is there, as it is when the quote is printed.
  await expect(value(page, 'lines.line_name')).toHaveText('Vent motor VM-48, 24 V');
  await expect(page.getByRole('status').getByText('figures, all in order.')).toBeVisible();
  await page.getByLabel('Each line').getByRole('combobox').click();
  await page.getByRole('option').nth(1).click();
  await expect(value(page, 'lines.net')).toHaveText('6,750.00 GBP');
  await row(page, 'subtotal').hover();
  await expect(row(page, 'lines.net')).toHaveClass(/uses/);
  await expect(row(page, 'total')).toHaveClass(/used/);
  await page.getByRole('combobox', { name: 'Record to show values for' }).fill('40 propagation');
  await page.getByRole('option', { name: 'Propagation house 40 × 12 m' }).click();
  await expect(value(page, 'total')).toHaveText('115,998.72 GBP');
});

test('a figure without a value for the deal is told, and not called in order', async ({ page }) => {
  await page.goto('/templates/glasshouse-quote/figures?record=D-1202');
  const told = page.getByRole('status').filter({ hasText: 'For this record' });
  await expect(told).toContainText('For this record List value has no value:');
  await expect(page.getByText('all in order')).toHaveCount(0);
});

test('a formula is completed, valued while it is typed, and kept', async ({ page }) => {
  await openSheet(page, 'D-1187');
  await write(page, 'extras_total', 'subtotal * deal.dep');
  const offered = page.getByRole('option', { name: /deposit_percent/ });
  await expect(offered).toContainText('a percentage');
  // A list that has only just opened does not take a key yet.
  await page.waitForTimeout(150);
  await page.keyboard.press('Tab');
  await expect(page.locator('.formula-line .live')).toContainText('4,609.20 GBP');
  await page.keyboard.press('Enter');
  await expect(value(page, 'extras_total')).toHaveText('4,609.20 GBP');
  await expect(publish(page)).toBeEnabled();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row(page, 'extras_total').locator('.formula')).toHaveText('SUM(lines[optional].net)');
  await expect(publish(page)).toBeDisabled();
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(row(page, 'extras_total').locator('.formula')).toHaveText('subtotal * deal.deposit_percent');
});

test('a mistake is underlined at its place, told in a sentence, and mended by a click', async ({ page }) => {
  await openSheet(page, 'D-1187');
  await write(page, 'extras_total', 'SUM(lines.nett)');
  await expect(page.getByText('The line item has no “nett”; did you mean net?')).toBeVisible();
  await expect(page.locator('.cm-lintRange-error')).toHaveText('nett');
  await page.getByRole('button', { name: 'Use net' }).click();
  await expect(page.locator('.formula-line .live')).toContainText('15,364.00 GBP');
  await write(page, 'extras_total', 'lines.net');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Enter');
  await expect(
    page
      .getByText('This is a list of amounts, and one value is needed')
      .or(page.getByText('“Optional extras” should be an amount of money, but its formula gives a list of amounts.'))
      .first(),
  ).toBeVisible();
  await expect(publish(page)).toBeDisabled();
});

test('figures are added, moved by key, renamed with all their uses, and taken out only when unused', async ({
  page,
}) => {
  await openSheet(page, 'D-1187');
  await row(page, 'subtotal').locator('.name').click();
  await page.getByRole('button', { name: 'Delete' }).last().click();
  await expect(page.getByRole('alert')).toContainText('Can’t be deleted; used by Discounts, Total');
  await page.getByLabel('Name in formulas').fill('sum of lines');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('cannot be a name');
  await page.getByLabel('Name in formulas').fill('net_sum');
  await page.keyboard.press('Enter');
  await expect(row(page, 'total').locator('.formula')).toHaveText('net_sum + tax_total');
  await expect(value(page, 'net_sum')).toHaveText('15,364.00 GBP');

  const document = page.getByLabel('The document');
  const names = () => document.locator('.label').allTextContents();
  await row(page, 'total').locator('.name').focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect
    .poll(names)
    .toEqual(['List value', 'Discounts', 'Subtotal', 'Total', 'VAT', 'Optional extras', 'Valid until']);
  await expect(value(page, 'total')).toHaveText('18,436.80 GBP');

  await document.getByRole('button', { name: 'Add a figure' }).click();
  await page.getByLabel('Label').fill('Deposit');
  await page.keyboard.press('Enter');
  await write(page, 'figure_1', 'total * (deal.deposit_percent ?? 0%)');
  await page.keyboard.press('Enter');
  await expect(value(page, 'figure_1')).toHaveText('5,531.04 GBP');
  await row(page, 'figure_1').locator('.name').click();
  await page.getByRole('button', { name: 'Delete' }).last().click();
  await expect(row(page, 'figure_1')).toHaveCount(0);
});

test('a published sheet is what documents are produced from', async ({ page }) => {
  await openSheet(page, 'D-1191');
  await row(page, 'extras_total').locator('.name').click();
  await page.getByLabel('Name in formulas').fill('extras_sum');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Renamed to extras_sum, with every use of it')).toBeVisible();
  await publish(page).click();
  await page.getByRole('dialog', { name: 'Publish the draft' }).getByRole('button', { name: 'Publish' }).click();
  const stopped = page.getByRole('dialog', { name: 'Some records could not be filed' });
  await expect(stopped.getByRole('listitem').first()).toContainText('Set it on the deal.');
  await expect(stopped.getByLabel('Why publish it all the same')).toBeFocused();
  await page.keyboard.type('They wait for their prices');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Published as version 2')).toBeVisible();
  await page.goto('/records/Deal/D-1191/produce/glasshouse-quote');
  await expect(page.getByLabel('Page 1 of').first()).toBeVisible();
  await page.getByRole('tab', { name: 'Workings' }).click();
  await page.getByRole('complementary').getByRole('button', { name: 'Optional extras', exact: true }).click();
  await expect(
    page
      .getByText('Optional extras = 420.00 = 420.00 GBP')
      .or(page.getByText(/Optional extras = .*420\.00 GBP/))
      .first(),
  ).toBeVisible();
});

test('a ready-made calculation brings its figures and its table, and can be undone at once', async ({ page }) => {
  await openSheet(page, 'D-1213');
  await page.getByRole('button', { name: 'Ready-made…' }).click();
  await page.getByRole('option', { name: 'Allowances, charges and freight by weight' }).click();
  await page.getByRole('button', { name: 'Add to the sheet' }).click();
  await expect(value(page, 'allowances')).toHaveText('2,683.12 GBP');
  await expect(value(page, 'charges')).toHaveText('640.00 GBP');
  await page.getByRole('textbox', { name: 'Price, row 4' }).fill('700');
  await page.keyboard.press('Tab');
  await expect(value(page, 'charges')).toHaveText('700.00 GBP');
  await page.getByRole('textbox', { name: 'Price, row 4' }).fill('much');
  await page.keyboard.press('Tab');
  await expect(page.getByText('The table “Freight by weight”, row 4: “much” is not a number.').first()).toBeVisible();
  await expect(publish(page)).toBeDisabled();
  for (let step = 0; step < 3; step++) await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row(page, 'charges')).toHaveCount(0);
  await expect(value(page, 'total')).toHaveText('97,156.80 GBP');
});

test('the reference tells every function with its example', async ({ page }) => {
  await openSheet(page, 'D-1187');
  await row(page, 'total').locator('.name').click();
  await page.locator('.formula-line').getByRole('button', { name: 'Formula help' }).click();
  const dialog = page.getByRole('dialog', { name: 'Formula help' });
  await dialog.getByLabel('Search functions').fill('instalments');
  await expect(dialog.getByText('SCHEDULE(total, shares, first date?, months between?)')).toBeVisible();
  await expect(dialog.getByText('31 January 2027, 28 February 2027 and 31 March 2027')).toBeVisible();
});

test('the price bridge leads from list price to total, each step to its workings', async ({ page }) => {
  await page.goto('/records/Deal/D-1187/produce/glasshouse-quote');
  await page.getByRole('tab', { name: 'Workings' }).click();
  const steps = page.locator('.bridge li');
  await expect(steps).toHaveText(['16,696.00 GBP', '−1,332.00 GBP', '15,364.00 GBP', '3,072.80 GBP', '18,436.80 GBP']);
  await page.getByRole('button', { name: 'Discounts, −1,332.00 GBP: workings' }).click();
  await expect(page.getByText('Discounts = 15,364.00 GBP − 16,696.00 GBP = −1,332.00 GBP')).toBeVisible();
});
