import { expect, test, type Page } from '@playwright/test';

const search = (page: Page) => page.getByRole('searchbox', { name: 'Search deals' });
const names = (page: Page) => page.locator('td a.record');
const view = (page: Page, name: RegExp) => page.getByRole('button', { name });

test('counts follow the filters, Clear filters empties the search, and Back goes through all of it', async ({
  page,
}) => {
  await page.goto('/records/Deal');
  await expect(page.getByText(/^1–25 of \d+$/)).toBeVisible();
  const all = (await view(page, /^All \d+$/).textContent())!;
  await search(page).fill('orangery');
  await expect(view(page, /^All \d$/)).toBeVisible();
  await expect(page.getByText(/^1–\d of \d$/)).toBeVisible();
  await page.getByRole('combobox', { name: 'Stage' }).click();
  await page.getByRole('option').nth(1).click();
  await expect(page).toHaveURL(/stage=/);
  await page.goBack();
  await expect(page).not.toHaveURL(/stage=/);
  await expect(search(page)).toHaveValue('orangery');
  await page.goBack();
  await expect(search(page)).toHaveValue('');
  await expect(view(page, /^All/)).toHaveText(all);
  await page.goForward();
  await page.getByRole('button', { name: 'Clear filters' }).first().click();
  await expect(search(page)).toHaveValue('');
  await expect(view(page, /^All/)).toHaveText(all);
});

test('several rows are selected by mouse and keyboard, and Produce walks through them alone', async ({ page }) => {
  await page.goto('/records/Deal?search=house&sort=name');
  await expect(names(page).nth(2)).toBeVisible();
  const rows = page.locator('tbody tr');
  await rows.nth(0).getByRole('checkbox').click();
  await rows.nth(2).getByRole('checkbox').click();
  await expect(page.getByText('2 deals selected')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText('2 deals selected')).toBeHidden();
  await rows.nth(0).getByRole('checkbox').click();
  await rows.nth(2).getByRole('checkbox').click();
  const ids = await names(page).evaluateAll((links) => links.map((link) => link.getAttribute('href')!));
  await page.keyboard.press('Control+Enter');
  await expect(page).toHaveURL(new RegExp(`${ids[0]}/produce/`));
  await page.keyboard.press(']');
  await expect(page).toHaveURL(new RegExp(`${ids[2]}/produce/`));
  await page.keyboard.press(']');
  await expect(page.getByText('This is the last of the list')).toBeVisible();
});

test('the brackets walk the list that one came from, beyond its page', async ({ page }) => {
  await page.goto('/records/Deal?sort=name&skip=25');
  await expect(names(page).first()).toBeVisible();
  const second = await names(page).evaluateAll((links) => links.map((link) => link.getAttribute('href')!));
  await page.goto('/records/Deal?sort=name');
  await expect(names(page)).toHaveCount(25);
  const last = (await names(page).last().getAttribute('href'))!;
  await names(page).last().click();
  await expect(page).toHaveURL(new RegExp(`${last}$`));
  await page.goto(`${last}/produce/glasshouse-quote`);
  await expect(page.getByLabel(/^Page 1 of/).first()).toBeVisible();
  await page.keyboard.press(']');
  await expect(page).toHaveURL(new RegExp(`${second[0]}/produce/`));
});

test('a choice is made by Enter and not by each arrow', async ({ page }) => {
  await page.goto('/records/Deal');
  await page.getByRole('combobox', { name: 'Stage' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option').first()).toBeVisible();
  for (let step = 0; step < 3; step++) await page.keyboard.press('ArrowDown');
  await expect(page).not.toHaveURL(/stage=/);
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/stage=/);
});

test('the register is filtered by kind, state, person and days, and adds no two kinds together', async ({ page }) => {
  await page.goto('/records/Deal/D-1198/produce/glasshouse-quote');
  await page.getByRole('button', { name: 'File', exact: true }).click();
  await expect(page.getByText('is filed and attached to the deal')).toBeVisible();
  await page.goto('/register');
  await expect(page.getByText(/documents?\. Filed: .*quote/)).toBeVisible();
  const choose = async (filter: string, option: string) => {
    await page.getByRole('combobox', { name: filter }).click();
    await page.getByRole('option', { name: option, exact: true }).click();
  };
  await choose('Kind', 'quote');
  await choose('State', 'filed');
  await choose('Filed by', 'Tamar Whitlow');
  await expect(page).toHaveURL(/kind=quote&state=filed&by=Tamar/);
  await expect(page.locator('td a.number').first()).toBeVisible();
  const day = (name: string) => page.getByRole('combobox', { name, exact: true });
  await day('From').fill('01/01/2001');
  await day('until').fill('01/02/2001');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/from=2001-01-01&until=2001-02-01/);
  await expect(page.getByText('No matching documents')).toBeVisible();
  await page.getByRole('button', { name: 'Clear filters' }).first().click();
  await expect(day('From')).toHaveValue('');
  // From the calendar, too.
  await page.getByRole('button', { name: 'From: calendar' }).click();
  await page.getByRole('gridcell', { name: '15', exact: true }).first().click();
  await expect(page).toHaveURL(/from=\d{4}-\d\d-15/);
  await page.getByRole('button', { name: 'Clear filters' }).first().click();
  await expect(page.locator('td a.number').first()).toBeVisible();
});

test('values on a proof are one stop of the Tab key, have names, and arrows lead from one to the next', async ({
  page,
}) => {
  await page.goto('/records/Deal/D-1187/produce/glasshouse-quote');
  const values = page.locator('[data-page] a[role="button"]');
  await expect(values.first()).toBeAttached();
  await expect(page.locator('[data-page] a[tabindex="0"]')).toHaveCount(1);
  for (const link of await values.all()) await expect(link).toHaveAttribute('aria-label', /.+/);
  await values.first().focus();
  const name = await values.first().getAttribute('aria-label');
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('[data-page] a:focus')).not.toHaveAttribute('aria-label', name!);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('tab', { name: 'Workings' })).toHaveAttribute('aria-selected', 'true');
});

test('of a long proof the pages near the view are drawn, and all of them where it is printed', async ({ page }) => {
  await page.goto('/records/Deal/D-1203/produce/glasshouse-quote');
  const drawn = page.locator('[data-page] .drawing > svg');
  await expect(page.getByLabel('Page 7 of 7')).toBeAttached();
  await expect.poll(() => drawn.count()).toBe(2);
  await page.getByLabel('Page 7 of 7').scrollIntoViewIfNeeded();
  await expect(page.locator('[data-page="7"] svg')).toBeVisible();
  await expect(page.locator('[data-page="1"] svg')).toHaveCount(0);
  await page.evaluate(() => window.dispatchEvent(new Event('beforeprint')));
  await expect(drawn).toHaveCount(7);
});

test('a hint is there from the first time that the pointer comes, and goes with it', async ({ page }) => {
  await page.goto('/records/Deal');
  const glyph = page.getByRole('row').nth(1).locator('.glyph').first();
  const hint = page.getByRole('tooltip');
  for (let time = 0; time < 2; time++) {
    await glyph.hover();
    await expect(hint).toHaveText(/^[A-Z][a-z ]+: (none yet|filed|failed)$/);
    await page.getByRole('searchbox').first().hover();
    await expect(hint).toBeHidden();
  }
});
