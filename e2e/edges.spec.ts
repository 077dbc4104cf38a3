import { WEB } from './callers';
import { expect, test, type APIResponse } from '@playwright/test';
import { request as plainRequest } from 'node:http';

const problem = async (response: APIResponse) => {
  expect(response.headers()['content-type']).toContain('application/problem+json');
  const { status, title, detail } = (await response.json()) as { status: number; title: string; detail: string };
  expect(status).toBe(response.status());
  expect(title).not.toBe('');
  expect(detail).toMatch(/[.]$/);
  return status;
};
const FIELD = { type: 'Deal', id: 'D-1187', version: 'W/"1"', field: 'name', value: 'x' };

/** A request as another program would write it, with headers that a browser would not let a page set. */
function sent(url: string, { method = 'POST', headers = {}, chunks = [] as Iterable<string> }): Promise<number> {
  return new Promise((resolve, reject) => {
    const request = plainRequest(url, { method, headers }, (response) => {
      response.resume();
      resolve(response.statusCode!);
    });
    // What is refused half-way is closed half-way.
    request.on('error', (error: NodeJS.ErrnoException) =>
      error.code === 'EPIPE' || error.code === 'ECONNRESET' ? undefined : reject(error),
    );
    for (const chunk of chunks) request.write(chunk);
    request.end();
  });
}

test('a page of another site can change nothing, and is not shown in one', async ({ request }) => {
  const foreign = { origin: 'https://evil.example' };
  expect(await problem(await request.patch('/api/fields', { data: FIELD, headers: foreign }))).toBe(403);
  expect(await problem(await request.post('/api/templates', { data: Buffer.from('{}'), headers: foreign }))).toBe(403);
  expect(
    await problem(
      await request.get('/api/records/Deal', {
        headers: { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'no-cors' },
      }),
    ),
  ).toBe(403);
  expect(
    await problem(await request.post('/api/documents', { data: '{}', headers: { 'content-type': 'text/plain' } })),
  ).toBe(415);
  const headers = (await request.get('/records/Deal')).headers();
  expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
  expect(headers['content-security-policy']).not.toMatch(/script-src[^;]*unsafe/);
});

test('a name that Lumbix is not known by is refused', async ({ baseURL }) => {
  const url = `${baseURL}/api/health`;
  expect(await sent(url, { method: 'GET', headers: { host: 'evil.example' } })).toBe(421);
  expect(await sent(url, { method: 'GET', headers: { host: 'localhost' } })).toBe(200);
});

test('bodies that are too large, too deep, no JSON or no text are refused in words', async ({ request }) => {
  const { cookies } = await request.storageState();
  const cookie = cookies.map(({ name, value }) => `${name}=${value}`).join('; ');
  const json = { 'content-type': 'application/json' };
  const body = (data: string | Buffer) => request.patch('/api/fields', { data: Buffer.from(data), headers: json });
  expect(await problem(await body(`{"a":${'['.repeat(5_000)}`))).toBe(400);
  expect(await problem(await body('{"type": "Deal", '))).toBe(400);
  expect(await problem(await body(Buffer.from([0x7b, 0x22, 0xff, 0xfe, 0x22, 0x7d])))).toBe(400);
  expect(await problem(await body('{"__proto__": {"a": 1}}'))).toBe(400);
  expect(await problem(await body('{"type": "De\\u0000al"}'))).toBe(400);
  expect(await problem(await body('{"type": "\\ud800"}'))).toBe(400);
  expect(await problem(await body('[1e999]'))).toBe(400);
  expect(await problem(await body('null'))).toBe(422);
  expect(await problem(await body('{"type": 1}'))).toBe(422);
  expect(await problem(await request.patch('/api/fields', { data: { ...FIELD, version: '*' } }))).toBe(422);
  // Without a length told before: it ends when the limit is passed, and no later.
  const megabyte = `${'{"a":1},'.repeat(131_072)}`;
  const url = `${WEB}/api/fields`;
  const headers = { ...json, cookie, 'transfer-encoding': 'chunked' };
  expect(await sent(url, { method: 'PATCH', headers, chunks: Array.from({ length: 25 }, () => megabyte) })).toBe(413);
  expect(
    await sent(url, { method: 'PATCH', headers: { ...json, cookie, 'content-length': '50000000' }, chunks: ['{'] }),
  ).toBe(413);
});

test('addresses that lead nowhere, or cannot be read, are problems too', async ({ request }) => {
  expect(await problem(await request.get('/api/nothing'))).toBe(404);
  expect(await problem(await request.delete('/api/templates/glasshouse-quote'))).toBe(405);
  expect(await problem(await request.get('/api/records/Deal/%E0%A4%A'))).toBe(400);
  expect(await problem(await request.get('/api/documents/not-an-id'))).toBe(400);
  expect(await problem(await request.get('/api/records/Deal?top=many'))).toBe(400);
  const long = await request.get(`/api/records/Deal?view=${'x'.repeat(5_000)}`);
  expect(await problem(long)).toBe(400);
  expect((await long.body()).length).toBeLessThan(1_000);
});

test('nothing says what Lumbix is built with, and every answer has its headers', async ({ request }) => {
  for (const path of ['/records/Deal', '/api/health', '/api/nothing', '/icon.svg']) {
    const headers = (await request.get(path)).headers();
    expect(headers['x-powered-by'], path).toBeUndefined();
    expect(headers, path).toMatchObject({
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'same-origin',
      'cross-origin-opener-policy': 'same-origin',
      'cross-origin-resource-policy': 'same-origin',
    });
  }
});

test('each page runs under its policy without breaking it', async ({ page }) => {
  test.setTimeout(90_000);
  await page.addInitScript(() => {
    const broken: string[] = [];
    Object.assign(window, { broken });
    document.addEventListener('securitypolicyviolation', (event) =>
      broken.push(`${event.violatedDirective} ${event.blockedURI}`),
    );
  });
  for (const path of [
    '/records/Deal',
    '/records/Deal/D-1187',
    '/records/Deal/D-1187/produce/full-proposal',
    '/templates',
    '/templates/glasshouse-quote/figures',
    '/register',
    '/setup/people',
    '/setup/rules',
    '/setup/connection',
    '/setup/records',
    '/setup/trail',
    '/setup/programs',
    '/you',
  ]) {
    await page.goto(path);
    await page.waitForLoadState('networkidle');
    expect(await page.evaluate(() => (window as unknown as { broken: string[] }).broken), path).toEqual([]);
    await expect(page.getByRole('navigation').first()).toBeVisible();
  }
});
