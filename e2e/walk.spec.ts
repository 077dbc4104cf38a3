import { EVERYTHING, inDatabase, pageOf } from './callers';
import { expect, test, type Page } from '@playwright/test';
import { changeInCrm, clearFaults, crmUrl, fault } from './crm';

test.afterEach(({ request }) => clearFaults(request));

const proofOf = async (page: Page, deal: string) => {
  await page.goto(`/records/Deal/${deal}/produce/glasshouse-quote`);
  await expect(page.getByLabel('Page 1 of').first()).toBeVisible();
};
const value = (page: Page, id: string) => page.locator(`a[href="lumbix:${id}"]`);
const fileButton = (page: Page) => page.getByRole('button', { name: 'File', exact: true });

test('from a deal to a filed quote', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('searchbox', { name: 'Search deals' }).fill('propagation house');
  await expect(page).toHaveURL(/search=propagation/);
  await expect(page.getByRole('row')).toHaveCount(2);
  await page.getByRole('link', { name: 'Propagation house 40 × 12 m' }).click();
  await expect(page.getByText('Nothing has been produced for this deal yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Produce Glasshouse quote' }).click();

  await expect(page.getByLabel('Page 1 of 2')).toBeVisible();
  await expect(page.getByText('when the house is heated')).toBeVisible();
  await value(page, 'totals.total').click();
  await expect(page.getByText('Total = 96,665.60 GBP + 19,333.12 GBP = 115,998.72 GBP')).toBeVisible();
  await page.getByRole('complementary').getByRole('button', { name: 'Subtotal' }).click();
  await expect(page.getByText('SUM(lines[not optional].net)').first()).toBeVisible();

  await fileButton(page).click();
  await expect(page.getByText('is filed and attached to the deal')).toBeVisible();
  const number = (await page.locator('footer b').textContent())!;
  expect(number).toMatch(/^Q-\d{4}-\d{4}$/);

  await page.getByRole('button', { name: 'Open the PDF' }).click();
  await expect(page.locator('canvas[data-drawn]')).toHaveCount(2);
  await expect(page.getByText(`Number ${number} was taken.`)).toBeVisible();
  await page.getByRole('link', { name: 'Register', exact: true }).first().click();
  await expect(page.getByRole('row', { name: new RegExp(number) })).toContainText('115,998.72 GBP');

  await page.goto('/records/Deal/D-1188');
  await expect(page.getByRole('link', { name: new RegExp(number) })).toContainText('Filed');
  await page.goto(`${crmUrl}/deals/D-1188`);
  await expect(page.getByRole('link', { name: `Quote ${number} Kestrel Hill Botanic Garden.pdf` })).toHaveCount(1);
});

test('a missing unit price is named, cannot be filed, and is mended on the deal', async ({ page }) => {
  await proofOf(page, 'D-1202');
  await expect(page.getByRole('heading', { name: 'No unit price' })).toBeVisible();
  await expect(page.getByText('Line 4, Vent motor VM-48, 24 V: no unit price, but it is printed here.')).toBeVisible();
  await expect(fileButton(page)).toBeDisabled();
  await page.getByRole('button', { name: 'Set on the deal' }).click();
  await expect(page.getByRole('textbox', { name: 'Unit price, on the deal' })).toBeFocused();
  await page.getByRole('textbox', { name: 'Unit price, on the deal' }).fill('485');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Written to the CRM')).toBeVisible();
  await expect(page.getByText('No issues found.')).toBeVisible();
  await expect(fileButton(page)).toBeEnabled();

  await page.goto('/records/Deal/D-1202');
  await page.getByRole('button', { name: 'Unit price of line 4: 485.00 GBP. Change it' }).click();
  await page.getByRole('textbox', { name: 'Unit price of line 4' }).fill('490');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Unit price of line 4: 490.00 GBP. Change it' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Unit price of line 4: 485.00 GBP. Change it' })).toBeVisible();
});

test('a deal that changes between proof and filing is not filed, and the change is shown', async ({
  page,
  request,
}) => {
  await proofOf(page, 'D-1192');
  await changeInCrm(request, 'lineitems/D-1192-2', 'unit_price', '60.00');
  await fileButton(page).click();
  const told = page.getByRole('alert').filter({ hasText: 'The deal changed since this proof' });
  await expect(told).toContainText('this proof. Line 2, Thermal screen: unit price: AED 55.25 → AED 60.00');
  // The new proof is there to be looked at.
  await value(page, 'totals.subtotal').click();
  await expect(page.getByText(/189,000\.00/).first()).toBeVisible();
  await page.goto('/records/Deal/D-1192');
  await expect(page.getByText('Nothing has been produced for this deal yet.')).toBeVisible();
});

test('a warning is filed only with a reason', async ({ page }) => {
  await proofOf(page, 'D-1187');
  await expect(page.getByRole('heading', { name: 'Subtotal differs from the deal' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Finding 1: Subtotal differs from the deal' })).toBeVisible();
  await expect(fileButton(page)).toBeDisabled();
  await page.getByRole('button', { name: 'Skip with a reason' }).click();
  await page.getByRole('textbox', { name: 'Reason for skipping' }).fill('amount to be corrected');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Skipped: “amount to be corrected”')).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('is filed and attached to the deal')).toBeVisible();
  await page.getByRole('button', { name: 'Open the PDF' }).click();
  await expect(page.getByText('Subtotal differs from the deal: “amount to be corrected”')).toBeVisible();
});

test('the workings of a line’s number', async ({ page }) => {
  await proofOf(page, 'D-1187');
  await value(page, 'lines.net deal.lines{D-1187-1}').click();
  await expect(
    page.getByText('Net of line 1, Vent motor VM-48, 24 V = 12 × 485.00 GBP × (1 − 10 %) = 5,238.00 GBP'),
  ).toBeVisible();
});

test('views, filters and sorting live in the address', async ({ page }) => {
  await page.goto('/records/Deal?view=needs-quote');
  await expect(page.getByRole('button', { name: /Needs a quote/ })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('combobox', { name: 'Stage' }).click();
  await page.getByRole('option', { name: 'Site visit' }).click();
  await expect(page).toHaveURL(/stage=Site\+?(%20)?visit/);
  await page.getByRole('columnheader', { name: 'Amount' }).click();
  await expect(page).toHaveURL(/sort=amount/);
  await page.getByRole('searchbox', { name: 'Search deals' }).fill('no such deal');
  await expect(page.getByText('No matching deals')).toBeVisible();
  await page.getByRole('button', { name: 'Clear filters' }).first().click();
  await expect(page.getByRole('link', { name: 'Orangery, walled garden' })).toBeVisible();
});

test('figures in a list end where their heading ends', async ({ page }) => {
  await page.goto('/records/Deal?sort=account');
  const right = async (name: string | RegExp, role: 'columnheader' | 'cell') => {
    const cell = page.getByRole(role, { name }).first();
    return cell.evaluate((element) => {
      const range = document.createRange();
      range.selectNodeContents(element);
      return { text: range.getBoundingClientRect().right, align: getComputedStyle(element).textAlign };
    });
  };
  expect((await right(/GBP$/, 'cell')).align).toBe('end');
  // Columns find their widths once the rows are there.
  const apart = async () => (await right('Amount', 'columnheader')).text - (await right(/GBP$/, 'cell')).text;
  await expect.poll(async () => Math.abs(await apart())).toBeLessThan(1.5);
});

test('keys find, list themselves and walk from proof to proof', async ({ page }) => {
  await page.goto('/records/Deal');
  await expect(page.getByRole('link', { name: 'Boiler house renewal' })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByText('Previous and next record of the list')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText('Previous and next record of the list')).toBeHidden();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find a record, a document or a template' }).fill('hoshino');
  await expect(page.getByRole('option', { name: /Orchid range/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/D-1195/);
  await proofOf(page, 'D-1195');
  await page.keyboard.press(']');
  await expect(page).not.toHaveURL(/D-1195/);
  await page.keyboard.press('[');
  await expect(page).toHaveURL(/D-1195/);
});

test('the CRM away: a sentence, and lists and the register still work', async ({ page, request }) => {
  await fault(request, { on: 'any', kind: 'status', status: 503, times: 1_000 });
  await page.goto('/records/Deal/D-1188');
  await expect(page.getByRole('heading', { name: 'The CRM can’t be reached' })).toBeVisible({ timeout: 15_000 });
  await page.goto('/records/Deal');
  await expect(page.getByRole('link', { name: 'Boiler house renewal' })).toBeVisible();
  // As if it had been away for two minutes.
  await inDatabase("update record_readings set known_at = now() - interval '2 minutes'");
  await page.reload();
  await expect(page.getByText('The CRM can’t be reached. Showing data as of')).toBeVisible();
  await page.goto('/register');
  await expect(page.getByRole('row').nth(1)).toContainText('Q-');
  await clearFaults(request);
  await page.goto('/records/Deal');
  await expect(page.getByRole('link', { name: 'Boiler house renewal' })).toBeVisible();
});

test('a filing that the CRM keeps waiting says what it waits for, then arrives', async ({ page, request }) => {
  await proofOf(page, 'D-1190');
  await fault(request, { on: 'attach', kind: 'status', status: 500, times: 1_000 });
  await fileButton(page).click();
  const waiting = page.getByRole('status').filter({ hasText: 'Waiting.' });
  await expect(waiting).toContainText('The CRM answered with an error (500).');
  await expect(waiting).toContainText(/It is tried again in \d+ seconds/);
  await page.getByRole('button', { name: 'Open in the register' }).click();
  await expect(waiting).toBeVisible();
  await page.goto('/register');
  await expect(page.getByRole('row').nth(1)).toContainText('waiting');
  await page.getByRole('row').nth(1).click();
  await clearFaults(request);
  // Its own turn may come first.
  await Promise.race([
    page.getByRole('button', { name: 'Try now' }).click(),
    expect(page.getByText('Filed.')).toBeVisible(),
  ]);
  await expect(page.getByText('Filed.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Download' })).toBeVisible();
});

test('a document that waits is voided by finance alone, once its record was searched', async ({ page, request }) => {
  await proofOf(page, 'D-1191');
  await fault(request, { on: 'attach', kind: 'status', status: 500, times: 1_000 });
  await fileButton(page).click();
  await page.getByRole('button', { name: 'Open in the register' }).click();
  await expect(page).toHaveURL(/\/register\//);
  const address = page.url();
  await pageOf(page, 'producer');
  await page.goto(address);
  await page.getByRole('button', { name: 'Void …' }).press('Enter');
  await expect(page.getByText('To void a document takes the role finance')).toBeVisible();
  await pageOf(page, ...EVERYTHING);
  await page.goto(address);
  await page.getByRole('button', { name: 'Void …' }).click();
  await page.getByLabel('Why').fill('Made for the wrong deal.');
  await page.getByRole('button', { name: 'Void it' }).click();
  await expect(page.getByText('It will be void, unless the record holds its file.')).toBeVisible();
  // As if the last attempt had been six minutes ago.
  const id = address.split('/').at(-1)!;
  await inDatabase(
    "update steps set unclear_at = now() - interval '6 minutes', due_at = now() where document_id = $1 and state = 'open'",
    [id],
  );
  await page.request.post(`/api/documents/${id}/try`);
  await expect(page.getByText('This document was never filed')).toBeVisible();
  await expect(page.getByText('Made for the wrong deal.').first()).toBeVisible();
  await clearFaults(request);
});

test('filing is quick: the document is shown as filed in a second and a half at the median', async ({ page }) => {
  const taken: number[] = [];
  for (const deal of ['D-1189', 'D-1193', 'D-1196', 'D-1209', 'D-1210']) {
    await proofOf(page, deal);
    const pressed = Date.now();
    await fileButton(page).click();
    await expect(page.getByText('is filed and attached to the deal')).toBeVisible();
    taken.push(Date.now() - pressed);
  }
  const median = taken.sort((a, b) => a - b)[2]!;
  test.info().annotations.push({ type: 'median', description: `${median} ms` });
  process.stdout.write(`      From pressing File to filed: ${taken.join(', ')} ms, median ${median} ms\n`);
  // Speed is the bench's business; this only says that nothing waits for a slow poll.
  expect(median).toBeLessThan(4_000);
});
