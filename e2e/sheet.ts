import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Locator, type Page } from '@playwright/test';

/** What is written on. */
export const sheet = (page: Page) => page.locator('.sheet-text');
export const saved = (page: Page) => expect(page.getByText('Saved', { exact: true })).toBeVisible();
/** Opens a template on its sheet, with the values of a record. */
export async function open(page: Page, id: string): Promise<void> {
  await page.goto(`/templates/${id}`);
  await expect(sheet(page)).toBeVisible();
  // Values are there once the record was read.
  await expect(page.getByRole('button', { name: /^Name .*/ }).first()).toContainText(/\w/);
  // What the record leaves out folds with them.
  await expect(sheet(page).locator('.value:not([data-fault="unknown"])')).not.toHaveCount(0);
}
/** Begins a new template. */
export async function begin(page: Page, name: string, way: string, kind?: string): Promise<void> {
  await page.goto('/templates');
  await page.getByRole('button', { name: 'New template' }).click();
  const dialog = page.getByRole('dialog', { name: 'New template' });
  await dialog.getByLabel('Name', { exact: true }).fill(name);
  await dialog.getByText(way).click();
  if (kind) {
    await dialog.getByRole('combobox', { name: 'Kind of document' }).click();
    await page.getByRole('option', { name: kind, exact: true }).click();
  }
  await dialog.getByRole('button', { name: 'Begin' }).click();
  await expect(sheet(page)).toBeVisible();
}
/** Puts something in by the menu. */
export const insert = async (page: Page, what: string) => {
  await page.getByRole('button', { name: 'Insert', exact: true }).click();
  await page.getByRole('menuitem', { name: what }).click();
  await expect(sheet(page)).toBeFocused();
};
/** Takes a formula that is written; where a completion is offered, Enter takes that first. */
export const takeLine = (line: Locator) =>
  expect(async () => {
    if (await line.isVisible()) await line.press('Enter', { timeout: 500 });
    await expect(line).toBeHidden({ timeout: 1_000 });
  }).toPass();

/** The same of a value on the sheet, which has the focus then. */
export async function takeFormula(page: Page): Promise<void> {
  await takeLine(page.getByRole('textbox', { name: 'Formula of the value' }));
  await expect(sheet(page)).toBeFocused();
}

/** Counts what a person does from here on, until `end`: each press, click, typed text and chosen file. */
export function countActions(page: Page): { count: number; end(): void } {
  const ends: (() => void)[] = [];
  const told = { count: 0, end: () => ends.forEach((end) => end()) };
  const counted = (owner: object, names: readonly string[]) => {
    for (const name of names) {
      const act = Reflect.get(owner, name) as (...given: unknown[]) => unknown;
      ends.push(() => Reflect.set(owner, name, act));
      Reflect.set(owner, name, function (this: unknown, ...given: unknown[]) {
        told.count++;
        return act.apply(this, given);
      });
    }
  };
  counted(Object.getPrototypeOf(page.locator('body')) as Locator, ['click', 'fill', 'press', 'setInputFiles']);
  counted(page.keyboard, ['type', 'press']);
  return told;
}

/** The text of the document that was just filed. */
export async function filedText(page: Page): Promise<string> {
  await page.getByRole('button', { name: 'Open the PDF' }).click();
  await page.waitForURL(/\/register\//);
  const pdf = await page.request.get(`/api/documents/${page.url().split('/').at(-1)}/file`);
  const path = join(mkdtempSync(join(tmpdir(), 'lumbix-letter-')), 'letter.pdf');
  writeFileSync(path, await pdf.body());
  return execFileSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' });
}

/** Publishes the draft whose dialog is open, by keys: with a note, and with a reason where some records stop on it. */
export async function publishByKeys(page: Page, note: string, reason: string, version: number): Promise<void> {
  await page.keyboard.type(note);
  await page.keyboard.press('Enter');
  const stopped = page.getByRole('dialog', { name: 'Some records could not be filed' });
  const published = page.getByText(`Published as version ${version}`);
  await expect(stopped.or(published)).toBeVisible();
  if (await stopped.isVisible()) {
    await page.keyboard.type(reason);
    await page.keyboard.press('Enter');
  }
  await expect(published).toBeVisible();
}
