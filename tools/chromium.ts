import type { Browser, BrowserContextOptions } from '@playwright/test';

/** How Debian's Chromium is started here: as root in a closed network, without a window. */
export const chromiumOptions = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--no-first-run',
  ],
};

/** What a browser keeps of the demo's first account being signed in. */
export async function signedIn(browser: Browser, url: string): Promise<BrowserContextOptions> {
  const context = await browser.newContext({ locale: 'en-GB' });
  const page = await context.newPage();
  await page.goto(`${url}/sign-in`);
  await page.getByRole('button', { name: /Tamar/ }).click();
  await page.locator('td a').first().waitFor();
  const storageState = await context.storageState();
  await context.close();
  return { storageState, locale: 'en-GB', viewport: { width: 1280, height: 800 } };
}
