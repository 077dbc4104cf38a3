import { execFileSync } from 'node:child_process';
import { expect, test, type Page } from '@playwright/test';
import { demoRecords } from '../demo/crm/index';
import { inDatabase } from './callers';
import { dropDrafts } from './drafts';
import { begin, countActions, filedText, open, saved, sheet, takeFormula } from './sheet';

test.afterEach(({ page }) => dropDrafts(page));

const proof = (page: Page) => page.getByRole('region', { name: 'Proof' });
const panel = (page: Page) => page.getByRole('region', { name: 'Properties' });
const value = (page: Page, name: string) => proof(page).getByRole('button', { name, exact: true });

test('the proof takes the place of the sheet, follows it, and leads back to what stands on the page', async ({
  page,
}) => {
  await open(page, 'glasshouse-quote?record=D-1187');
  await page.keyboard.press('Control+.');
  await expect(value(page, '18,436.80')).toBeVisible();
  await expect(sheet(page)).toBeHidden();
  await value(page, '18,436.80').click();
  await expect(sheet(page)).toBeVisible();
  await expect(panel(page).getByRole('heading', { name: 'Totals' })).toBeVisible();
  await page.keyboard.press('Control+.');
  await proof(page).getByRole('combobox', { name: 'Edition of the proof' }).click();
  await page.getByRole('option', { name: 'Nederlands' }).click();
  await expect(proof(page).getByRole('figure').first()).toBeVisible();
  await expect(value(page, '18.436,80')).toBeVisible();
});

test('on a wide screen both stand side by side, and what is typed is on the page at once', async ({ page }) => {
  await page.setViewportSize({ width: 1600, height: 900 });
  await open(page, 'glasshouse-quote?record=D-1187');
  await page.keyboard.press('Control+.');
  await expect(value(page, '18,436.80')).toBeVisible();
  const heading = sheet(page).locator('h1').first();
  await heading.click();
  await page.keyboard.press('End');
  await page.keyboard.type(' =[');
  const line = page.getByRole('textbox', { name: 'Formula of the value' });
  await line.fill('"typed just now"');
  await takeFormula(page);
  await expect(value(page, 'typed just now')).toBeVisible();
  await saved(page);
});

test('a value is tried: the sheet and the proof show it, the CRM and what is produced do not', async ({ page }) => {
  await page.setViewportSize({ width: 1600, height: 900 });
  await open(page, 'glasshouse-quote?record=D-1187');
  await page.keyboard.press('Control+.');
  await page.getByRole('tab', { name: 'What if' }).click();
  await page.getByRole('combobox', { name: 'Try a field' }).click();
  await page.locator('.p-select-filter').fill('name');
  await page.keyboard.press('Enter');
  const input = page.getByRole('textbox', { name: /tried$/ });
  await input.fill('A house that is tried');
  await input.press('Enter');
  await expect(page.getByText('One value is tried')).toBeVisible();
  await expect(value(page, 'A house that is tried')).toBeVisible();
  await expect(sheet(page).locator('h1').first()).toContainText('A house that is tried');
  await page.getByRole('button', { name: 'As it is', exact: true }).click();
  await expect(value(page, 'Vent renewal, house 3')).toBeVisible();
  await expect(page.getByText('One value is tried')).toBeHidden();
});

test('findings are listed beside the proof, each with its way to the fix', async ({ page }) => {
  await page.setViewportSize({ width: 1600, height: 900 });
  await open(page, 'glasshouse-quote?record=D-1240');
  await page.keyboard.press('Control+.');
  await proof(page)
    .getByRole('button', { name: /^(One finding|\d+ findings)$/ })
    .click();
  const stop = proof(page).getByRole('listitem').filter({ hasText: 'No vat number' });
  await expect(stop).toContainText('This stops filing.');
  await stop.getByRole('button', { name: 'Show on the sheet' }).click();
  await expect(sheet(page)).toBeFocused();
  await expect(panel(page).getByRole('heading', { name: /Value|Paragraph/ })).toBeVisible();
  await stop.getByRole('link', { name: 'Set on the deal' }).click();
  await expect(page).toHaveURL(/\/records\/Deal\/D-1240\?field=/);
});

test('prove on ten shows what prints for each, what stops, and which sections print; others are chosen', async ({
  page,
}) => {
  await open(page, 'glasshouse-quote?record=D-1187');
  await page.getByRole('link', { name: 'Prove on ten' }).click();
  await expect(page.getByText(/^\d+ of 10 can be filed\.$/)).toBeVisible({ timeout: 20_000 });
  const tiles = page.getByRole('list', { name: 'Records' }).getByRole('listitem');
  await expect(tiles).toHaveCount(10);
  await expect(tiles.filter({ hasText: 'stops filing' })).not.toHaveCount(0);
  const crane = page
    .getByRole('group', { name: 'Sections that print' })
    .getByRole('button', { name: /include a crane/ });
  const count = Number(/\d+$/.exec((await crane.textContent())!)![0]);
  expect(count).toBeGreaterThan(0);
  await crane.click();
  await expect(page.locator('.tiles > .dimmed')).toHaveCount(10 - count);
  await crane.click();

  await page.getByRole('button', { name: 'Choose others…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Records to prove on' });
  for (let left = 10; left > 2; left--)
    await dialog
      .getByRole('button', { name: /^Leave / })
      .first()
      .click();
  await dialog.getByRole('button', { name: 'Prove on these' }).click();
  await expect(page.getByText(/^\d of 2 can be filed\.$/)).toBeVisible();
  await tiles.first().getByRole('button').click();
  await expect(proof(page).getByRole('figure').first()).toBeVisible();
});

/** What the demo's deals come to by the independent calculator, by sheet and formula. */
const workedOut = JSON.parse(
  execFileSync('python3', ['tests/agreement/calculator.py'], {
    input: JSON.stringify(demoRecords),
    maxBuffer: 2 ** 28,
    encoding: 'utf8',
  }),
) as Record<string, Record<string, Record<string, string>>>;
const printed = (amount: string) => Number(amount).toLocaleString('en-GB', { minimumFractionDigits: 2 });

test('ten proofs that were left half-way are finished where publishing shows them', async ({ page }) => {
  await open(page, 'glasshouse-quote?record=D-1187');
  await sheet(page).getByRole('heading', { name: 'Crane on site' }).click();
  await page.keyboard.press('End');
  await page.keyboard.type(' today');
  await saved(page);
  await page.getByRole('link', { name: 'Prove on ten' }).click();
  await expect(page.getByRole('list', { name: 'Records' }).getByRole('listitem')).toHaveCount(10);
  await page.getByRole('link', { name: 'Glasshouse quote' }).click();
  await expect(sheet(page)).toBeVisible();
  await page.keyboard.press('Control+Enter');
  const dialog = page.getByRole('dialog', { name: 'Publish the draft' });
  await expect(dialog.getByText(/\d+ of 10 can be filed/)).toBeVisible();
});

test('from an empty page to a quote in groups, with totals and sections, proved, published and produced', async ({
  page,
}) => {
  test.setTimeout(180_000);
  const actions = countActions(page);
  await begin(page, 'Quote from nothing', 'An empty sheet', 'quote');
  await expect(sheet(page)).toBeFocused();
  const press = (keys: string) => page.keyboard.press(keys);
  const find = async (words: string) => {
    await press('Control+k');
    await expect(page.getByRole('dialog', { name: 'Find anything' })).toBeVisible();
    await page.keyboard.type(words);
    await expect(page.getByRole('option').first()).toBeVisible();
    await press('Enter');
    await expect(page.getByRole('dialog', { name: 'Find anything' })).toBeHidden();
  };
  const field = (name: RegExp) => page.locator('.record-drawer').getByRole('button', { name }).first();
  const choose = async (box: string, option: string | RegExp) => {
    await panel(page).getByRole('combobox', { name: box, exact: true }).click();
    await page.getByRole('option', { name: option }).click();
  };
  const addRule = async (words: string, label: string) => {
    await panel(page).getByRole('combobox', { name: 'Add a rule' }).click();
    await page.locator('.p-select-filter').fill(words);
    await page.getByRole('option', { name: label, exact: true }).click();
  };

  await page.keyboard.type('# ');
  await field(/^Name /).click();
  await press('Enter');
  await page.keyboard.type('For ');
  await page
    .locator('.record-drawer')
    .locator('section', { hasText: 'Account' })
    .getByRole('button', { name: /^Name / })
    .first()
    .click();
  await press('Enter');

  await find('insert line table');
  await expect(sheet(page).locator('table.lines')).toBeVisible();
  await choose('Grouped by', 'Section');
  await sheet(page).focus();
  await find('insert totals');
  await page.getByRole('dialog', { name: 'Totals' }).getByRole('button', { name: 'Put in' }).click();
  await expect(sheet(page).locator('[data-kind="totals"]')).toContainText('Total');
  await find('insert paragraph');

  // Three sections under conditions.
  for (const [words, text, rule] of [
    ['heating', 'The heating is set anew after the first cold week.', 'Heating'],
    ['account country', 'Delivered free of charge.', 'Account’s country'],
    ['amount', 'A project manager looks after you.', 'Amount'],
  ] as const) {
    await page.keyboard.type(text);
    await find('insert print only when');
    await addRule(words, rule);
    await expect(page.locator('.margin-notes')).toContainText(`the ${rule[0]!.toLowerCase()}${rule.slice(1)} is`);
    await sheet(page).focus();
    await find('insert paragraph');
  }
  await page.keyboard.type('Valid until =[');
  const line = page.getByRole('textbox', { name: 'Formula of the value' });
  await line.fill('document.issue_date + 30');
  await expect(page.locator('.live strong')).toContainText(/\w/);
  await takeFormula(page);
  await saved(page);

  await page.getByRole('link', { name: 'Prove on ten' }).click();
  await expect(page.getByText(/^\d+ of 10 can be filed\.$/)).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: 'Publish' }).click();
  await page.keyboard.type('The first quote');
  await press('Enter');
  const stopped = page.getByRole('dialog', { name: 'Some records could not be filed' });
  const published = page.getByText('Published as version 1');
  await expect(stopped.or(published)).toBeVisible();
  if (await stopped.isVisible()) {
    await page.keyboard.type('They wait for their prices');
    await press('Enter');
  }
  await expect(published).toBeAttached();
  actions.end();
  process.stdout.write(`      The quote took ${actions.count} actions\n`);
  expect(actions.count).toBeLessThanOrEqual(150);

  for (const deal of ['D-1187', 'D-1203', 'D-1197']) {
    await page.goto(`/records/Deal/${deal}/produce/quote-from-nothing`);
    await page.getByRole('button', { name: 'File', exact: true }).click();
    await expect(page.getByText('is filed and attached to the deal')).toBeVisible();
    const text = await filedText(page);
    const { subtotal, total } = workedOut[deal]!['net-prices']!;
    expect(text).toContain(printed(subtotal!));
    expect(text).toContain(printed(total!));
  }
  await inDatabase("update templates set archived_at = now() where id = 'quote-from-nothing'");
});

test('a field that is gone is told, replaced in one act, and brought back in one', async ({ page }) => {
  await open(page, 'glasshouse-quote?record=D-1187');
  for (let times = 0; times < 2; times++) {
    await sheet(page).locator('h1').first().click();
    await page.keyboard.press('End');
    await page.keyboard.type(' =[');
    const line = page.getByRole('textbox', { name: 'Formula of the value' });
    await line.fill('deal.heatings');
    await takeFormula(page);
  }
  const gone = page.getByRole('alert', { name: 'Fields that are gone' });
  await expect(gone).toContainText('The deal has no field heatings.');
  await gone.getByRole('button', { name: 'one place' }).click();
  await expect(gone.getByRole('listitem')).toHaveCount(1);
  await gone.getByRole('button', { name: 'Replace everywhere' }).click();
  await expect(gone).toBeHidden();
  await expect(sheet(page).locator('h1').first()).toContainText('pipe');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(gone).toBeVisible();
});
