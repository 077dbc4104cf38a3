import { PDFDocument } from '@cantoo/pdf-lib';
import { expect, test, type Page } from '@playwright/test';
import { pageOf } from './callers';
import { changeInCrm, clearFaults } from './crm';
import { dropDrafts } from './drafts';

/** A document that is otherwise than its template and its record say, for itself alone. */
test.afterEach(({ request }) => clearFaults(request));

const pages = (page: Page) => page.locator('[data-page]').first();
const document = (page: Page) => page.getByRole('tab', { name: 'This document' });
const file = (page: Page) => page.getByRole('button', { name: 'File', exact: true });
const open = async (page: Page, deal: string) => {
  await page.goto(`/records/Deal/${deal}/produce/glasshouse-quote`);
  await expect(page.locator('[data-page="1"] svg')).toBeVisible();
};

test('a blank is given for one document alone, and is blank on the deal still', async ({ page, request }) => {
  await changeInCrm(request, 'lineitems/D-1233-1', 'unit_price', '');
  await open(page, 'D-1233');
  await expect(file(page)).toBeDisabled();
  await page.getByRole('button', { name: 'For this document alone' }).click();
  const input = page.getByRole('textbox', { name: 'Unit price, for this document alone' });
  await expect(input).toBeFocused();
  await input.fill('lots');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toBeVisible();
  await input.fill('485');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'No unit price' })).toBeHidden();
  await expect(page).toHaveURL(/production=/);

  await document(page).click();
  await expect(page.getByText('is “485” here')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('is “485” here')).toBeHidden();
  await page.keyboard.press('Control+y');
  await expect(page.getByText('is “485” here')).toBeVisible();
  await expect(page).toHaveURL(/production=/);
  await page.reload();
  await expect(page.getByText('is “485” here')).toBeVisible();

  await page.goto('/records/Deal/D-1233');
  await expect(page.getByRole('heading', { name: '1 document in hand' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Unit price of line 1: blank/ })).toBeVisible();
});

test('what a template asks for is filled in, checked as it is typed, and printed', async ({ page }) => {
  await page.goto('/records/Deal/D-1246/produce/delivery-note?leaf=document');
  await expect(page.locator('[data-page="1"] svg')).toBeVisible();
  const asked = page.getByRole('region', { name: 'Asked for' });
  await asked.getByRole('button', { name: 'Packages: blank' }).click();
  const input = asked.getByRole('textbox', { name: 'Packages' });
  await expect(input).toBeFocused();
  await input.fill('some');
  await input.press('Enter');
  await expect(asked.getByRole('alert')).toBeVisible();
  await input.fill('7');
  await input.press('Enter');
  await expect(asked.getByRole('button', { name: 'Packages: 7' })).toBeVisible();
  await expect(page.getByRole('button', { name: '7', exact: true }).first()).toBeVisible();
  await expect(page).toHaveURL(/production=/);
  await page.reload();
  await expect(asked.getByRole('button', { name: 'Packages: 7' })).toBeVisible();
  await page.getByRole('button', { name: 'Take back: Packages' }).click();
  await expect(asked.getByRole('button', { name: 'Packages: blank' })).toBeVisible();
});

test('a document is issued on an earlier day that its series allows, and no earlier', async ({ page }) => {
  const before = (days: number) => new Date(Date.now() - days * 86_400_000);
  const figures = (day: Date) => day.toLocaleDateString('en-GB', { timeZone: 'Europe/London' });
  const words = (day: Date) =>
    day.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'Europe/London' });
  await page.goto('/records/Deal/D-1211/produce/full-proposal?leaf=document');
  await expect(page.locator('[data-page="1"] svg')).toBeVisible();
  const day = page.getByRole('combobox', { name: 'Issue date' });
  await day.fill(figures(before(200)));
  await day.press('Enter');
  await expect(page.getByText(/numbers follow the days/)).toBeVisible();
  await day.fill(figures(before(3)));
  await day.press('Enter');
  await expect(page.getByRole('button', { name: words(before(3)) }).first()).toBeVisible();
  await expect(page).toHaveURL(/issueDate=\d{4}-\d{2}-\d{2}/);
  await day.fill(figures(before(0)));
  await day.press('Enter');
  await expect(page.getByRole('button', { name: words(before(0)) }).first()).toBeVisible();
  await expect(page).not.toHaveURL(/issueDate=/);
});

test('an author has something asked for in the form, and formulas read it', async ({ page }) => {
  await page.goto('/templates/receipt');
  await page.getByRole('link', { name: 'Filing', exact: true }).click();
  await page.getByRole('button', { name: 'Ask for something …' }).click();
  const form = page.getByRole('article', { name: /^Asked for: / });
  const label = form.getByLabel('What is asked for');
  await label.fill('Paid by');
  await label.press('Enter');
  await expect(form.getByText('In formulas: ask.paid_by')).toBeVisible();
  await form.getByRole('combobox', { name: 'Kind of Paid by' }).click();
  await page.getByRole('option', { name: 'Choice' }).click();
  const values = form.getByLabel('One of');
  await values.fill('transfer, cash , transfer');
  await values.press('Enter');
  await expect(values).toHaveValue('transfer, cash');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(values).toHaveValue('first, second');
  await form.getByRole('button', { name: /^Remove/ }).click();
  await expect(form).toBeHidden();
  await dropDrafts(page);
});

test('a section is switched off, words are changed, a clause is put in; a colleague goes on and files it', async ({
  page,
  browser,
}) => {
  await open(page, 'D-1234');
  await document(page).click();
  const section = page.getByRole('checkbox', { checked: true }).first();
  const name = (await page
    .locator('.sections label')
    .nth(
      await page
        .getByRole('checkbox')
        .evaluateAll((all) => all.findIndex((each) => (each as HTMLInputElement).checked)),
    )
    .textContent())!;
  await section.click();
  await expect(page.getByText('is left out').first()).toBeVisible();
  await expect(page.getByRole('checkbox', { name })).not.toBeChecked();

  await page.getByRole('textbox', { name: 'Find in the document' }).fill('thank you');
  await page.locator('.blocks .words').first().click();
  await page.getByRole('button', { name: 'Change the words' }).click();
  const words = page.getByRole('textbox', { name: 'Words', exact: true });
  await expect(words.locator('.value').first()).toBeVisible();
  await words.press('Control+End');
  await words.pressSequentially(' As agreed by telephone.');
  await page.getByRole('button', { name: 'Use these words' }).click();
  await expect(page.getByText('says something else')).toBeVisible();
  await expect(
    pages(page)
      .locator('xpath=..')
      .getByText(/words changed by Tamar Whitlow/),
  ).toBeVisible();

  await page.getByRole('button', { name: 'Add below' }).click();
  await page.getByText('Clause', { exact: true }).click();
  await page.getByRole('combobox', { name: 'Clause' }).click();
  await page.getByRole('option').first().click();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('is put in')).toBeVisible();

  const other = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const theirs = await other.newPage();
  await pageOf(theirs, 'producer');
  await theirs.goto(page.url());
  await expect(theirs.getByText('says something else')).toBeVisible();
  await theirs.getByRole('button', { name: /^Take back: The clause/ }).click();
  await expect(theirs.getByText('is put in')).toBeHidden();

  // Whoever had it open before is told, and sees it as it is now.
  await page.getByRole('button', { name: /^Take back: The section/ }).click();
  await expect(page.getByText('Somebody else went on with this document')).toBeVisible();
  await expect(page.getByText('is put in')).toBeHidden();
  await expect(page.getByText('says something else')).toBeVisible();

  await theirs.reload();
  await expect(theirs.getByText('says something else')).toBeVisible();
  await file(theirs).click();
  await expect(theirs.getByText('is filed and attached to the deal')).toBeVisible();
  await theirs.getByRole('button', { name: 'Open the PDF' }).click();
  await expect(theirs.getByRole('heading', { name: 'Changed for this document' })).toBeVisible();
  await expect(theirs.getByText('says something else')).toBeVisible();
  await other.close();
});

test('a PDF is joined to one document and a picture is put in; what is left out is noted beside what stays', async ({
  page,
}) => {
  await open(page, 'D-1214');
  await document(page).click();
  const plan = await PDFDocument.create();
  for (const _ of [1, 2]) plan.addPage();
  const drawing = Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20"><path d="M0 0h9"/></svg>',
  );
  const files = [
    { name: 'Site plan.pdf', mimeType: 'application/pdf', buffer: Buffer.from(await plan.save()) },
    { name: 'site.svg', mimeType: 'image/svg+xml', buffer: drawing },
  ];
  const join = page.getByLabel('Join PDF files');
  await join.setInputFiles(files);
  await expect(page.getByRole('link', { name: 'Open Site plan.pdf' })).toBeVisible();
  await expect(page.getByText('“site.svg” is a picture.')).toBeVisible();
  const counts = page.getByRole('checkbox', { name: 'count its pages (Site plan.pdf)' });
  await counts.click();
  await expect(counts).toBeChecked();

  await page.getByRole('textbox', { name: 'Find in the document' }).fill('thank you');
  await page.locator('.blocks .words').first().click();
  await page.getByRole('button', { name: 'Add below' }).click();
  const dialog = page.getByRole('dialog', { name: 'Add to this document' });
  await dialog.getByText('Picture', { exact: true }).click();
  await dialog.getByLabel('Picture', { exact: true }).setInputFiles(files[0]!);
  await expect(dialog.getByText('“Site plan.pdf” is a PDF.')).toBeVisible();
  await dialog.getByLabel('Picture', { exact: true }).setInputFiles(files[1]!);
  await expect(dialog.getByText('site.svg')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Add', exact: true })).toBeDisabled();
  await dialog.getByLabel('In words, for those who cannot see it').fill('The site');
  await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText(/^The picture “The site” after/)).toBeVisible();
  await expect(page.locator('.note', { hasText: 'added by Tamar Whitlow' })).toBeVisible();

  await page.getByRole('button', { name: 'Leave out' }).click();
  await expect(page.locator('.note', { hasText: /left out by Tamar Whitlow.*: “Dear/ })).toBeVisible();
  await page.getByRole('button', { name: 'Take back: Site plan.pdf' }).click();
  await expect(page.getByRole('link', { name: 'Open Site plan.pdf' })).toBeHidden();
});

test('what changes on the deal while its document is open is told, and is seen or undone before it is filed', async ({
  page,
  request,
}) => {
  await open(page, 'D-1216');
  const price = page.getByRole('heading', { name: 'The deal changed while this was open' });
  await changeInCrm(request, 'lineitems/D-1216-1', 'quantity', '17');
  // Nothing has to be pressed: the page asks by itself.
  await expect(price).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText(/^Line 1, .+: quantity was .+ and is 17 now\./)).toBeVisible();
  await page.getByRole('button', { name: 'Go on with this' }).click();
  await expect(page.getByText('Seen: goes on with what the record says now')).toBeVisible();
  await page.getByRole('button', { name: 'Undo skip' }).first().click();
  await expect(page.getByRole('button', { name: 'Go on with this' })).toBeVisible();
});

test('what proves that a document adds up stays; a reader changes nothing', async ({ page }) => {
  await open(page, 'D-1235');
  await document(page).click();
  await page.getByRole('textbox', { name: 'Find in the document' }).fill('table');
  await page.locator('.blocks .words').first().click();
  await expect(page.getByText('Its sums prove the document, so it stays.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Leave out' })).toBeHidden();
  await pageOf(page, 'author');
  await open(page, 'D-1235');
  await document(page).click();
  await expect(page.getByRole('checkbox').first()).toBeDisabled();
});

test('an agreed total is worked back to one value, tried on the proof, and written to the deal', async ({ page }) => {
  await open(page, 'D-1236');
  await page.locator('a[href="lumbix:totals.total"]').click();
  const before = await page.locator('a[href="lumbix:totals.total"]').getAttribute('aria-label');
  const agreed = page.getByRole('textbox', { name: 'What Total should come to' });
  await agreed.fill('much');
  await agreed.press('Enter');
  await expect(page.getByText(/is a number, such as/)).toBeVisible();
  // Ten less than now, whatever it is.
  const wanted = (Number(before!.replaceAll(',', '')) - 12).toFixed(2);
  await agreed.fill(wanted);
  await agreed.press('Enter');
  const way = page.locator('.work-back li').filter({ hasText: 'exactly' }).first();
  await expect(way).toBeVisible();
  await way.getByRole('button', { name: /^Try on the proof/ }).click();
  await expect(page.locator('a[href="lumbix:totals.total"]')).toHaveAttribute(
    'aria-label',
    Number(wanted).toLocaleString('en-GB', { minimumFractionDigits: 2 }),
  );
  await document(page).click();
  await page.getByRole('button', { name: 'Write to the deal' }).click();
  await expect(page.getByText('Written to the CRM')).toBeVisible();
  await expect(page.getByText('Changed for this document')).toBeHidden();
  await page.reload();
  await expect(page.locator('a[href="lumbix:totals.total"]')).toHaveAttribute(
    'aria-label',
    Number(wanted).toLocaleString('en-GB', { minimumFractionDigits: 2 }),
  );
});

test('a value is set on the deal from the proof; where somebody else was faster, both values are shown', async ({
  page,
  request,
}) => {
  await changeInCrm(request, 'lineitems/D-1237-1', 'unit_price', '');
  await open(page, 'D-1237');
  await page.getByRole('button', { name: 'Set on the deal' }).click();
  const input = page.getByRole('textbox', { name: 'Unit price, on the deal' });
  await changeInCrm(request, 'lineitems/D-1237-1', 'unit_price', '77.00');
  await input.fill('485');
  await input.press('Enter');
  await expect(page.getByText(/^Nell Orrin changed the line item, \d/).first()).toBeVisible();
  await expect(page.getByText(/Unit price is “77(\.00)?” there now; you typed “485”/).first()).toBeVisible();
  await expect(page.getByRole('heading', { name: 'No unit price' })).toBeHidden();
});
