import { readFileSync, writeFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { dropDrafts } from './drafts';

const putIn = async (page: Page, path: string) => page.locator('input[type=file]').setInputFiles(path);

test('a template is taken out, changed and put in again; a broken one is refused with its places', async ({
  page,
}, info) => {
  await page.goto('/templates');
  const shelf = page.getByRole('listitem').filter({ has: page.getByRole('link', { name: 'Delivery note' }) });
  const thumbnail = shelf.getByRole('img');
  await expect.poll(() => thumbnail.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(420);

  const waiting = page.waitForEvent('download');
  await more(page, 'Delivery note');
  await page.getByRole('menuitem', { name: 'Export' }).click();
  const download = await waiting;
  expect(download.suggestedFilename()).toBe('Delivery note.lumbix.json');
  const template = JSON.parse(readFileSync(await download.path(), 'utf8')) as {
    id: string;
    name: string;
    layout: { page: object };
  };

  const own = info.outputPath('own.json');
  writeFileSync(own, JSON.stringify({ ...template, id: 'packing-list', name: 'Packing list' }));
  await putIn(page, own);
  const stopped = page.getByRole('dialog', { name: 'Some records could not be filed' });
  await expect(stopped.getByRole('button', { name: 'Publish' })).toBeDisabled();
  await stopped.getByLabel('Why publish it all the same').fill('They wait for their addresses');
  await stopped.getByRole('button', { name: 'Publish' }).click();
  await expect(stopped).toHaveCount(0);
  await expect(page.getByText('“Packing list” is on the shelf now.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Packing list' })).toBeVisible();

  // The same file again changes nothing; a changed one says what it would replace.
  await putIn(page, own);
  await expect(page.getByText('“Packing list” is the same as version 1. Nothing was changed.')).toBeVisible();
  writeFileSync(own, JSON.stringify({ ...template, id: 'packing-list', name: 'Loading list' }));
  await putIn(page, own);
  const replaces = page.getByRole('dialog', { name: 'This would replace “Packing list”' });
  await expect(replaces.getByRole('row', { name: 'Template Changed name' })).toBeVisible();
  await replaces.getByRole('button', { name: 'Cancel' }).click();
  await expect(replaces).toHaveCount(0);
  await expect(page.getByRole('link', { name: 'Loading list' })).toHaveCount(0);
  await putIn(page, own);
  await replaces.getByRole('button', { name: 'As a new template' }).click();
  await stopped.getByLabel('Why publish it all the same').fill('They wait for their addresses');
  await stopped.getByRole('button', { name: 'Publish' }).click();
  await expect(page.getByText('“Loading list (2)” is on the shelf now.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Packing list' })).toBeVisible();

  const broken = info.outputPath('broken.json');
  writeFileSync(
    broken,
    JSON.stringify({ ...template, kind: 'poem', layout: { ...template.layout, page: { size: 'a9' } } }),
  );
  await putIn(page, broken);
  await expect(page.getByRole('alert')).toContainText('The template was not imported');
  await expect(page.getByRole('alert')).toContainText('In the template, kind: “poem” stands here');
  await expect(page.getByRole('alert')).toContainText('layout.page.size');
  await page.getByRole('alert').getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);

  await page.getByRole('searchbox', { name: 'Search templates' }).fill('invoice');
  await expect(page.getByRole('list').getByRole('img')).toHaveCount(2);
});

test('a template is duplicated; the copy is renamed, deleted and brought back; a template is archived and offered nowhere', async ({
  page,
}) => {
  const choose = async (name: string, what: string) => {
    await more(page, name);
    await page.getByRole('menuitem', { name: what }).click();
  };
  await page.goto('/templates');
  await choose('Service-plan agreement', 'Duplicate');
  await expect(page.getByRole('listitem').filter({ hasText: 'Service-plan agreement (2)' })).toContainText(
    'not published yet',
  );
  await choose('Service-plan agreement (2)', 'Rename');
  await expect(page.getByRole('textbox', { name: 'Name' })).toBeFocused();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Service for schools');
  await page.keyboard.press('Enter');
  const copy = page.getByRole('listitem').filter({ hasText: 'Service for schools' });
  await expect(copy).toBeVisible();
  // A dialog that closes scrolls, and a menu closes by that.
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await choose('Service for schools', 'Delete');
  await expect(copy).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(copy).toBeVisible();

  await choose('Order confirmation', 'Archive');
  const confirmation = page.getByRole('listitem').filter({ hasText: 'Order confirmation' });
  await expect(page.getByText('“Order confirmation” is archived.')).toBeVisible();
  await expect(confirmation).toHaveCount(0);
  await page.goto('/records/Deal/D-1188/produce/order-confirmation');
  await expect(page.getByRole('alert')).toContainText('This template is archived');
  await page.goto('/records/Deal/D-1188');
  await expect(page.getByRole('button', { name: 'Full proposal' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Order confirmation' })).toHaveCount(0);
  await page.goto('/templates');
  await page.getByRole('button', { name: /^Show archived/ }).click();
  await expect(confirmation).toContainText('archived');
  await choose('Order confirmation', 'Bring back');
  await expect(page.getByText('“Order confirmation” is back on the shelf.')).toBeVisible();
  await dropDrafts(page);
});

test('a document is shown in the language of its deal, in another one, and as a trial', async ({ page, request }) => {
  await page.goto('/records/Deal/D-1253/produce/glasshouse-quote');
  await expect(page.getByText('عرض سعر يُمنح الرقم عند الحفظ').first()).toBeVisible();
  await page.getByText('This document').click();
  await expect(page.getByRole('combobox', { name: 'Edition' })).toContainText('As the deal says');
  await page.getByRole('combobox', { name: 'Edition' }).click();
  await page.getByRole('option', { name: 'Deutsch' }).click();
  await expect(page.getByText('Angebot Nummer wird beim Ablegen vergeben, بيت الشتلات')).toBeVisible();
  const trial = await page.getByRole('link', { name: 'Open a trial PDF' }).getAttribute('href');
  const response = await request.get(trial!);
  expect([response.headers()['content-type'], (await response.body()).subarray(0, 5).toString()]).toEqual([
    'application/pdf',
    '%PDF-',
  ]);
});

test('every value of a proposal, pictures too, leads to its workings', async ({ page }) => {
  await page.goto('/records/Deal/D-1188/produce/full-proposal');
  await expect(page.getByLabel('Page 1 of 3')).toBeVisible();
  await expect(page.locator('[data-page="2"] svg')).toBeAttached();
  await page.evaluate(() => window.dispatchEvent(new Event('beforeprint')));
  await expect(page.locator('a[href="lumbix:totals.total"]')).toBeAttached();
  const links = page.locator('a[href^="lumbix:"]');
  await expect.poll(() => links.count()).toBeGreaterThan(150);
  const ids = await links.evaluateAll((all) => [
    ...new Set(all.map((link) => link.getAttribute('href')!.slice('lumbix:'.length))),
  ]);
  for (const kind of [
    'site-photo',
    'scope-note',
    'lines.picture ',
    'lines.net ',
    'totals.tax',
    'lines net 2',
    'title 1',
  ]) {
    expect(
      ids.some((id) => id.startsWith(kind)),
      kind,
    ).toBe(true);
  }
  await page.locator('a[href="lumbix:totals.total"]').click();
  await expect(page.getByText('Total = 96,665.60 GBP + 19,333.12 GBP = 115,998.72 GBP')).toBeVisible();
});

/** Opens the menu of a template. Menus close where the page is scrolled, so it is in view before. */
async function more(page: Page, name: string): Promise<void> {
  const button = page.getByRole('button', { name: `More for ${name}` });
  await button.scrollIntoViewIfNeeded();
  await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))));
  await button.click();
}
