import { expect, test, type Response } from '@playwright/test';
import { BUDGET, loadOf } from '../tools/page-load';

/** A first visit loads what its page needs and little else; how long it takes is measured by `npm run bench:pages`. */
for (const path of [
  '/records/Deal',
  '/records/Deal/D-1187',
  '/records/Deal/D-1187/produce/glasshouse-quote',
  '/templates',
  '/register',
  '/setup/people',
  '/setup/records',
]) {
  test(`a first visit to ${path} keeps within its budget`, async ({ page }) => {
    const load = await loadOf(page, () => page.goto(path));
    expect(load.requests, 'requests').toBeLessThanOrEqual(BUDGET.requests);
    expect(load.bytes, 'bytes').toBeLessThanOrEqual(BUDGET.bytes);
    expect(load.html, 'bytes of HTML').toBeLessThanOrEqual(BUDGET.html);
    expect(load.requests).toBeGreaterThan(5);
  });
}

test('files and answers are compressed, and files with a hash in their name are kept for good', async ({ page }) => {
  const responses: Response[] = [];
  page.on('response', (response) => responses.push(response));
  await page.goto('/records/Deal');
  await page.waitForLoadState('networkidle');
  const seen = await Promise.all(
    responses.map(async (response) => ({
      url: response.url(),
      encoding: response.headers()['content-encoding'],
      cache: response.headers()['cache-control'],
      size: (await response.body().catch(() => Buffer.alloc(0))).length,
    })),
  );
  const files = seen.filter(({ url }) => /\/_nuxt\/.+\.(js|css)$/.test(url));
  expect(files.length).toBeGreaterThan(3);
  for (const { url, encoding, cache, size } of files) {
    expect(cache, url).toContain('immutable');
    if (size > 1_400) expect(encoding, url).toMatch(/br|gzip/);
  }
  const list = seen.find(({ url }) => url.includes('/api/records/Deal?'))!;
  expect(list.size).toBeGreaterThan(1_400);
  expect(list.encoding).toMatch(/br|gzip/);
});
