import { expect, test, type Page } from '@playwright/test';
import { dropDrafts } from './drafts';
import { insert, open, saved, sheet, takeLine } from './sheet';

test.afterEach(({ page }) => dropDrafts(page));

const panel = (page: Page) => page.getByRole('region', { name: 'Properties' });
const margin = (page: Page) => page.locator('.margin-notes');

/** Adds a rule about what is found under some words. */
async function addRule(page: Page, words: string, label: string, to = 'Add a rule'): Promise<void> {
  await panel(page).getByRole('combobox', { name: to, exact: true }).click();
  await page.locator('.p-select-filter').fill(words);
  await page.getByRole('option', { name: label, exact: true }).click();
}

test('a block is printed under a condition that is put together from rows, and is said in the margin', async ({
  page,
}) => {
  await open(page, 'glasshouse-quote?record=D-1187');
  await sheet(page).getByRole('heading', { name: 'Crane on site' }).click();
  await insert(page, 'Print only when…');
  await expect(margin(page)).toContainText('always');
  await addRule(page, 'heating', 'Heating');
  const holds = panel(page).getByRole('region', { name: 'Where it holds' });
  await expect(holds).toContainText(/Holds for \d of 10 proof records/);
  await panel(page).getByRole('combobox', { name: 'How Heating is compared' }).click();
  await page.getByRole('option', { name: 'is one of' }).click();
  await panel(page).locator('.p-multiselect').click();
  await page.getByRole('option', { name: /^pipe/ }).click();
  await page.keyboard.press('Escape');
  await expect(margin(page)).toContainText(/when the heating is .*pipe/);
  await addRule(page, 'account country', 'Account’s country');
  await addRule(page, 'amount', 'Amount');
  await panel(page).getByRole('button', { name: 'Group' }).click();
  await addRule(page, 'site works', 'Site works', 'Add to this group');
  await expect(margin(page)).toContainText('and either the amount is at least 0 or the site works include');
  await panel(page).getByRole('button', { name: 'As a formula' }).click();
  await expect(panel(page).getByRole('button', { name: /^Printed only when:/ })).toContainText(
    /^\(deal\.heating = "\w+" or .*\) and deal\.account\.country = "\w+" and \(deal\.amount >= 0 or "\w+" in deal\.site_works\)$/,
  );
  await panel(page).getByRole('button', { name: 'As rows' }).click();
  await expect(panel(page).getByRole('combobox', { name: 'How the rules of the group count' })).toBeVisible();
  await saved(page);
});

test('a rule looks at the lines, and at some of them', async ({ page }) => {
  await open(page, 'glasshouse-quote?record=D-1187');
  await sheet(page).getByRole('heading', { name: 'Terms' }).click();
  await insert(page, 'Print only when…');
  await addRule(page, 'line items', 'Line items');
  await addRule(page, 'optional', 'Optional', 'Only items that…');
  await expect(margin(page)).toContainText('when there is a line item that is optional');
  await expect(sheet(page).locator('[data-left-out]', { hasText: 'Terms' })).toHaveCount(1);
});

test('words of one’s own are kept until the formula is another one', async ({ page }) => {
  await open(page, 'glasshouse-quote?record=D-1187');
  await margin(page).getByRole('button', { name: 'when site works include a crane' }).click();
  const words = panel(page).getByRole('textbox', { name: 'Said in the margin' });
  await expect(words).toHaveValue('site works include a crane');
  await words.fill('a crane comes');
  await words.press('Enter');
  await expect(margin(page)).toContainText('when a crane comes');
  await addRule(page, 'heating', 'Heating');
  await expect(margin(page)).toContainText('when the site works include crane and the heating');
  await expect(margin(page)).toContainText('words to look at');
  await panel(page).getByRole('button', { name: 'Use it again' }).click();
  await expect(margin(page)).toContainText('when a crane comes');
  await expect(margin(page)).not.toContainText('words to look at');
  await panel(page).getByRole('button', { name: 'Make them from the formula' }).click();
  await expect(margin(page)).toContainText('when the site works include crane and the heating');
});

test('a formula that rows cannot show is shown as it is, and is not changed by that', async ({ page }) => {
  await open(page, 'glasshouse-quote?record=D-1187');
  await margin(page).getByRole('button', { name: 'when the house is heated' }).click();
  await panel(page).getByRole('button', { name: 'As a formula' }).click();
  await panel(page)
    .getByRole('button', { name: /^Printed only when:/ })
    .click();
  const line = panel(page).getByRole('textbox', { name: 'Printed only when' });
  await line.fill('IF(total > 3, true, false)');
  await takeLine(line);
  await expect(panel(page)).toContainText('is no comparison that a row can show');
  await saved(page);
  await page.reload();
  await margin(page).getByRole('button', { name: 'IF(total > 3, true, false)' }).click();
  await expect(panel(page).getByRole('button', { name: /^Printed only when:/ })).toHaveText(
    'IF(total > 3, true, false)',
  );
});

test('something else is printed otherwise; blocks start on a page and are repeated for some of the lines', async ({
  page,
}) => {
  await open(page, 'glasshouse-quote?record=D-1187');
  await margin(page).getByRole('button', { name: 'when site works include a crane' }).click();
  await panel(page).getByRole('button', { name: 'Otherwise print…' }).click();
  await page.keyboard.type('Nothing has to be lifted.');
  await expect(panel(page).getByRole('button', { name: 'Otherwise print…' })).toBeHidden();
  await sheet(page).getByRole('heading', { name: 'Terms' }).click();
  await insert(page, 'Start on a new page');
  await expect(margin(page)).toContainText('on a new page');
  await sheet(page).getByRole('heading', { name: 'Terms' }).click();
  await insert(page, 'Repeat for each…');
  await expect(margin(page)).toContainText('for each line item');
  await addRule(page, 'optional', 'Optional');
  await expect(margin(page)).toContainText('for each line item that is optional');
});

test('a section is dragged whole by its note, and put back in one step', async ({ page }) => {
  await open(page, 'glasshouse-quote?record=D-1187');
  const headings = sheet(page).getByRole('heading');
  const order = async () => (await headings.allTextContents()).filter((each) => /^(Heating|Crane on site)$/.test(each));
  expect(await order()).toEqual(['Heating', 'Crane on site']);
  const note = margin(page).getByRole('button', { name: 'when site works include a crane' });
  await headings.filter({ hasText: 'Crane on site' }).scrollIntoViewIfNeeded();
  await expect(note).toBeVisible();
  const from = (await note.boundingBox())!;
  const to = (await sheet(page).getByText('List value').boundingBox())!;
  await page.mouse.move(from.x + from.width - 20, from.y + 6);
  await page.mouse.down();
  await page.mouse.move(from.x + from.width, from.y - 10, { steps: 4 });
  await page.mouse.move(to.x + 30, to.y + 2, { steps: 10 });
  await page.mouse.up();
  await expect.poll(order).toEqual(['Crane on site', 'Heating']);
  await expect(note).toBeVisible();
  await sheet(page).focus();
  await page.keyboard.press('Control+z');
  await expect.poll(order).toEqual(['Heating', 'Crane on site']);
});
