import type { Page } from '@playwright/test';
import { inDatabase } from './callers';

/** Leaves a page and drops all drafts, so that the next test finds every template as it is published. */
export async function dropDrafts(page: Page): Promise<void> {
  await page.goto('about:blank');
  await inDatabase('delete from template_drafts');
}
