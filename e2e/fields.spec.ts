import { expect, test } from '@playwright/test';
import { renameInCrm } from './crm';
import { dropDrafts } from './drafts';
import { open, saved, sheet } from './sheet';

test.afterEach(({ page }) => dropDrafts(page));

test('a field gets another name in the CRM while a template is open: told, repaired in one act, undone in one', async ({
  page,
  request,
}) => {
  test.setTimeout(120_000);
  await open(page, 'glasshouse-quote?record=D-1187');
  const crane = page.locator('.margin-notes').getByRole('button', { name: 'when site works include a crane' });
  await expect(crane).toBeVisible();
  await renameInCrm(request, 'Deal', 'site_works', 'works_on_site');
  try {
    const gone = page.getByRole('alert', { name: 'Fields that are gone' });
    await expect(gone).toContainText('The deal has no field site_works.', { timeout: 60_000 });
    await gone.getByRole('button', { name: /places?$/ }).click();
    await expect(gone.getByRole('listitem')).toContainText(['crane']);
    await expect(gone.getByRole('combobox')).toContainText('Site works');
    await gone.getByRole('button', { name: 'Replace everywhere' }).click();
    await expect(gone).toBeHidden();
    await expect(sheet(page).getByRole('heading', { name: 'Crane on site' })).toBeVisible();
    await saved(page);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(gone).toBeVisible();

    // The published one says what it misses: on the shelf, and on its proof, without a wait.
    await page.goto('/templates');
    await expect(page.getByRole('listitem').filter({ hasText: 'Glasshouse quote' }).first()).toContainText(
      'site_works',
    );
    await page.goto('/records/Deal/D-1187/produce/glasshouse-quote');
    await expect(page.getByText(/site_works/).first()).toBeVisible();
  } finally {
    await renameInCrm(request, 'Deal', 'works_on_site', 'site_works');
  }
  // Other tests begin with the fields as they were.
  await open(page, 'glasshouse-quote?record=D-1187');
  await expect(page.getByRole('alert', { name: 'Fields that are gone' })).toBeHidden({ timeout: 60_000 });
});

test('where a field, a figure and a clause are used leads to each place', async ({ page }) => {
  await open(page, 'glasshouse-quote?record=D-1187');
  const heating = page.locator('.brought-in').filter({ hasText: 'Heating' });
  await heating.getByRole('button', { name: /^Used in \d+ places/ }).click();
  const places = page.getByRole('dialog', { name: 'Where it is used' });
  await expect(places.getByRole('listitem')).not.toHaveCount(0);
  await places
    .getByRole('button', { name: /^The section “/ })
    .first()
    .click();
  await expect(page.getByRole('region', { name: 'Properties' })).toContainText(/Print only when|Printed only when/);

  await sheet(page).getByText('terms-of-sale').or(sheet(page).locator('[data-kind="clause"]')).first().click();
  const panel = page.getByRole('region', { name: 'Properties' });
  await expect(panel).toContainText('Once in this template');
  await expect(panel).toContainText('In no other template');

  await page.goto('/templates/glasshouse-quote/figures?record=D-1187&figure=total');
  await page.getByRole('tab', { name: 'Figure', exact: true }).click();
  await page.getByRole('button', { name: 'The totals' }).first().click();
  await expect(page.getByRole('region', { name: 'Properties' }).getByRole('heading', { name: 'Totals' })).toBeVisible();
});
