import { expect, test, type Page } from '@playwright/test';
import { demoLayouts } from '../demo/layouts';

/** How the CRM's records are shown is chosen in Setup; every web process knows it within a second. */
const save = (page: Page) => page.getByRole('button', { name: 'Save', exact: true });
const kept = { headers: { origin: '', 'content-type': 'application/json' } };

test.afterEach(async ({ request, baseURL }) => {
  for (const [type, layout] of Object.entries(demoLayouts)) {
    const headers = { ...kept.headers, origin: baseURL! };
    const answer = await request.put(`/api/layouts/${type}`, { headers, data: layout });
    expect(answer.ok()).toBe(true);
  }
});

test('an administrator says which stages need a quote', async ({ page }) => {
  await page.goto('/setup/records');
  const chosen = page.locator('.p-multiselect').first();
  await expect(chosen).toContainText('Enquiry');
  await expect(save(page)).toBeDisabled();
  await chosen.click();
  await page.getByRole('option', { name: 'Site visit' }).click();
  await page.keyboard.press('Escape');
  await save(page).click();
  await expect(save(page)).toBeDisabled();
  await expect(async () => {
    await page.goto('/records/Deal?view=needs-quote&sort=stage&descending=true');
    await expect(page.getByRole('cell', { name: 'Enquiry' }).first()).toBeVisible();
    await expect(page.getByRole('cell', { name: 'Site visit' })).toHaveCount(0, { timeout: 500 });
  }).toPass();
});

test('a field moves to a group of its own by keyboard, and back by discarding', async ({ page }) => {
  await page.goto('/setup/records');
  const group = page.getByRole('combobox', { name: 'Group of Owner' });
  await group.fill('People');
  await group.press('Alt+ArrowUp');
  await expect(page.getByRole('row').nth(2)).toContainText('Owner');
  await page.getByRole('button', { name: 'Discard' }).click();
  await expect(group).toHaveValue('Deal');
  await group.fill('People');
  await save(page).click();
  await expect(save(page)).toBeDisabled();
  await page.goto('/records/Deal/D-1188');
  await expect(page.getByRole('heading', { name: 'People' })).toBeVisible();
});

test('the columns of line items are chosen', async ({ page }) => {
  await page.goto('/setup/records?type=LineItem');
  await page.getByRole('checkbox', { name: 'Tax category is a column' }).uncheck();
  await page.getByRole('checkbox', { name: 'SKU is a column' }).check();
  await save(page).click();
  await expect(save(page)).toBeDisabled();
  await page.goto('/records/Deal/D-1188');
  const lines = page.getByRole('table');
  await expect(lines.getByRole('columnheader', { name: 'SKU' })).toBeVisible();
  await expect(lines.getByRole('columnheader', { name: 'Tax category' })).toHaveCount(0);
});

test('the list is read anew where somebody asks', async ({ page }) => {
  await page.goto('/setup/records');
  await page.getByRole('button', { name: 'Refresh the list' }).click();
  await expect(page.getByText('The list is being refreshed. This may take a moment.')).toBeVisible();
  await expect(page.getByText(/81 deals listed, as of/)).toBeVisible();
});
