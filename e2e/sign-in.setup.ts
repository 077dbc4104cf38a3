import { expect, test } from '@playwright/test';
import { SIGNED_IN } from './callers';

test('from the start to the deals is one click', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Tamar Whitlow' }).click();
  await expect(page).toHaveURL(/\/records\/Deal/);
  await expect(page.getByRole('row').nth(1)).toBeVisible();
  await page.context().storageState({ path: SIGNED_IN });
});
