import { expect, test, type Page } from '@playwright/test';
import { pageOf } from './callers';
import { clearFaults, crmUrl, fault } from './crm';

/** What is done after filing, how it is set up, and what is filed again or void. */
test.afterEach(({ request }) => clearFaults(request));

const file = (page: Page) => page.getByRole('button', { name: 'File', exact: true });
const open = async (page: Page, deal: string, template = 'glasshouse-quote') => {
  await page.goto(`/records/Deal/${deal}/produce/${template}`);
  await expect(page.locator('[data-page="1"] svg')).toBeVisible();
};
/** Files what is open, and goes to it in the register. */
const filed = async (page: Page): Promise<string> => {
  await file(page).click();
  await expect(page.getByText(/is filed and attached/)).toBeVisible();
  await page.getByRole('button', { name: 'Open the PDF' }).click();
  await expect(page).toHaveURL(/\/register\//);
  return (await page.getByRole('definition').first().textContent())!;
};

test('a plan gets a stage and an activity in its form; they are told before, and done after filing', async ({
  page,
  request,
}) => {
  await page.goto('/templates/letter');
  await page.getByRole('link', { name: 'Filing', exact: true }).click();
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByRole('menuitem', { name: 'Set fields' }).click();
  const first = page.getByRole('article', { name: 'Step 1: Set fields' });
  await first.getByRole('combobox', { name: 'Value of field 1' }).click();
  await page.getByRole('option', { name: 'Negotiation' }).click();
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByRole('menuitem', { name: 'Write an activity' }).click();
  const second = page.getByRole('article', { name: 'Step 2: Write an activity' });
  await second.getByLabel('Subject', { exact: true }).fill('Letter =[document.number] to =[deal.account.name]');
  await second.getByLabel('Subject', { exact: true }).press('Enter');
  await second.getByRole('button', { name: 'Move step 2 up' }).click();
  await expect(page.getByRole('article', { name: 'Step 1: Write an activity' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('article', { name: 'Step 1: Set fields' })).toBeVisible();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.keyboard.press('Control+Enter');
  const dialog = page.getByRole('dialog', { name: 'Publish the draft' });
  await dialog.getByRole('button', { name: 'Publish', exact: true }).click();
  const published = page.getByText(/Published as version/);
  const stopped = page.getByRole('dialog', { name: 'Some records could not be filed' });
  await expect(stopped.or(published)).toBeVisible({ timeout: 30_000 });
  if (await stopped.isVisible()) {
    await page.keyboard.type('It waits for its address');
    await page.keyboard.press('Enter');
  }
  await expect(published).toBeAttached({ timeout: 30_000 });

  await open(page, 'D-1229', 'letter');
  await expect(page.getByText(/Sets Stage to “Negotiation”\. Writes the activity “Letter … to /)).toBeVisible();
  await filed(page);
  const steps = page.getByRole('listitem').filter({ hasText: /Done / });
  await expect(steps).toHaveCount(2);
  const deal = await (await request.get(`${crmUrl}/deals/D-1229`)).text();
  expect(deal).toContain('<option value="Negotiation" selected>');
  expect(deal).toMatch(/Letter L-\d{4}-\d{4} to /);
});

test('a step that is refused is held, with its reason, until it is tried again or let go', async ({
  page,
  request,
}) => {
  await open(page, 'D-1230');
  await fault(request, { on: 'activity', kind: 'status', status: 422, times: 2 });
  await file(page).click();
  await expect(page.getByText(/A step after filing is held: The CRM is out of order/)).toBeVisible();
  await page.getByRole('button', { name: 'Open the PDF' }).click();
  await page.getByRole('button', { name: 'Try now' }).click();
  await expect(page.getByText('Held, after 2 tries')).toBeVisible();
  await page.getByRole('button', { name: 'Let it go' }).click();
  await page.getByRole('dialog').getByLabel('Why').fill('I wrote it by hand.');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/Let go by .+: “I wrote it by hand\.”/)).toBeVisible();
  await page.goto('/register');
  await expect(page.getByRole('row').filter({ hasText: 'a step is held' })).toHaveCount(0);
});

test('a quote that is filed again is rev. B; the plan without steps, a new number and a void one', async ({ page }) => {
  await open(page, 'D-1231');
  const first = await filed(page);
  await open(page, 'D-1231');
  await expect(page.getByText(`Filing makes this ${first} rev. B`)).toBeVisible();
  await page.getByRole('tab', { name: 'This document' }).click();
  await page.getByRole('combobox', { name: 'Plan' }).click();
  await page.getByRole('option', { name: 'File only' }).click();
  await expect(page.getByText(/supersedes .+\. Nothing is sent\./)).toBeVisible();
  await page.getByRole('combobox', { name: 'Number' }).click();
  await page.getByRole('option', { name: 'A new number' }).click();
  await expect(page.getByText('Filing takes the next number of quotes')).toBeVisible();
  await page.getByRole('combobox', { name: 'Number' }).click();
  await page.getByRole('option', { name: 'the next revision' }).click();
  await expect(page.getByText(`Filing makes this ${first} rev. B`)).toBeVisible();
  expect(await filed(page)).toBe(`${first} rev. B`);
  await page.getByRole('link', { name: first, exact: true }).click();
  await expect(page.getByRole('link', { name: `${first} rev. B` })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Void/ })).toBeHidden();
  await page.getByRole('link', { name: `${first} rev. B` }).click();

  await page.getByRole('button', { name: /^Void/ }).click();
  await page.getByRole('dialog').getByLabel('Why').fill('Sent to the wrong house.');
  await page.getByRole('button', { name: 'Void it' }).click();
  await expect(page.getByText('Sent to the wrong house.').first()).toBeVisible();
  await page.goto('/records/Deal/D-1231');
  await expect(page.getByRole('link', { name: /void/ })).toContainText(`${first} rev. B`);
  await expect(page.getByRole('link', { name: /superseded/ })).toContainText(first);
});

test('only finance may void what is filed, and only an administrator sets up places', async ({ page }) => {
  await open(page, 'D-1232');
  await filed(page);
  const address = page.url();
  for (const role of ['reader', 'producer', 'finance'] as const) {
    await pageOf(page, role);
    await page.goto(address);
    await expect(page.getByRole('heading', { name: 'After filing' })).toBeVisible();
    const button = page.getByRole('button', { name: /^Void/ });
    if (role === 'finance') await expect(button).not.toHaveAttribute('aria-disabled');
    else await expect(button).toHaveAttribute('aria-disabled', 'true');
    await page.goto('/setup/copies');
    await expect(page.getByText('look after people and the connection')).toBeVisible();
  }
});

test('places for copies are set up, tested and taken away', async ({ page }) => {
  await page.goto('/setup/copies');
  await page.getByRole('button', { name: 'Add a place' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Sales folder');
  await page.getByLabel('Folder', { exact: true }).last().fill('../elsewhere');
  await page.getByRole('button', { name: 'Test and save' }).click();
  await expect(page.getByText('leads out of the folder for copies')).toBeVisible();
  await page.getByLabel('Folder', { exact: true }).last().fill('sales');
  await page.getByRole('button', { name: 'Test and save' }).click();
  const place = page.getByRole('listitem').filter({ hasText: 'Sales folder' });
  await expect(place).toContainText('In the folder for copies: sales');
  await place.getByRole('button', { name: 'Test' }).click();
  await expect(page.getByText('Sales folder answers')).toBeVisible();
  await place.getByRole('button', { name: 'Remove', exact: true }).click();
  await place.getByRole('button', { name: 'Remove it' }).click();
  await expect(place).toBeHidden();
});

test('finance sets up a number series, sees its first numbers as it is typed, and takes it away', async ({ page }) => {
  await pageOf(page, 'finance');
  await page.goto('/setup/numbers');
  await expect(page.getByRole('listitem').filter({ hasText: 'Quotes' })).toContainText(/next: Q-\d{4}-\d{4}/);
  await page.getByRole('button', { name: 'Add a series' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Framework quotes');
  const formula = page.getByLabel('Number, as a formula');
  await formula.fill('"F-" & SERIAL(3)');
  await expect(page.getByText('It gives F-001 in two years')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save' })).toBeDisabled();
  await formula.fill('"F-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(3)');
  await expect(page.getByText(/Begins with F-\d{4}-001, F-\d{4}-002/)).toBeVisible();
  await page.getByRole('spinbutton', { name: /^Days before filing/ }).fill('3');
  await page.getByRole('button', { name: 'Save' }).click();
  const series = page.getByRole('listitem').filter({ hasText: 'Framework quotes' });
  await expect(series).toContainText('none taken this year; issued up to 3 days before filing');
  await series.getByRole('button', { name: 'Remove Framework quotes' }).click();
  await expect(series).toBeHidden();
  // A reader may not.
  await pageOf(page, 'reader');
  await page.goto('/setup/numbers');
  await expect(page.getByText('To look after number series takes the role finance or administrator.')).toBeVisible();
});
