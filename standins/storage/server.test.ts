import { mkdtemp, rm } from 'node:fs/promises';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { AwsClient } from 'aws4fetch';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createStorage, prepareStorage } from './server';

const [USER, SECRET] = ['lumbix', 'local-only'];
let folder: string;
let server: Server;
let url: string;

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'lumbix-storage-'));
  await prepareStorage(folder);
  server = createStorage({ folder, user: USER, secret: SECRET });
  await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(async () => {
  server.close();
  server.closeAllConnections();
  await rm(folder, { recursive: true });
});

describe('the WebDAV of the stand-in', () => {
  const ask = (method: string, path: string, more: RequestInit & { as?: string } = {}) =>
    fetch(`${url}/dav/${path}`, {
      method,
      ...more,
      headers: { authorization: `Basic ${btoa(more.as ?? `${USER}:${SECRET}`)}`, ...more.headers },
    });
  const statusOf = async (...asked: Parameters<typeof ask>) => (await ask(...asked)).status;

  it('asks who calls', async () => {
    expect((await fetch(`${url}/dav/`, { method: 'PROPFIND' })).headers.get('www-authenticate')).toMatch(/^Basic/);
    expect(await statusOf('PROPFIND', '', { as: `${USER}:wrong` })).toBe(401);
    expect(await statusOf('PROPFIND', '')).toBe(207);
  });

  it('has folders that are made one in the other, each once (RFC 4918, 9.3)', async () => {
    expect(await statusOf('MKCOL', 'one/two')).toBe(409);
    expect(await statusOf('PUT', 'one/a.pdf', { body: 'a' })).toBe(409);
    expect(await statusOf('MKCOL', 'one')).toBe(201);
    expect(await statusOf('MKCOL', 'one')).toBe(405);
    expect(await statusOf('PUT', 'one/a.pdf', { body: 'a' })).toBe(201);
  });

  it('puts nothing in place of what is there where that is asked for, and leads nowhere else', async () => {
    const headers = { 'if-none-match': '*' };
    expect(await statusOf('PUT', 'b.pdf', { body: 'b', headers })).toBe(201);
    expect(await statusOf('PUT', 'b.pdf', { body: 'c', headers })).toBe(412);
    expect(await (await ask('GET', 'b.pdf')).text()).toBe('b');
    expect(await statusOf('GET', 'none.pdf')).toBe(404);
    expect(await statusOf('GET', '..%2f..%2fetc%2fpasswd')).toBe(400);
  });
});

describe('the buckets of the stand-in', () => {
  const client = (secretAccessKey = SECRET, accessKeyId = USER) =>
    new AwsClient({ accessKeyId, secretAccessKey, region: 'anywhere', service: 's3', retries: 0 });
  const statusOf = async (path: string, request: RequestInit, as = client()) =>
    (await as.fetch(`${url}/s3/${path}`, request)).status;

  it('take what is signed with the secret, and nothing else', async () => {
    expect(await statusOf('copies/one/a%20b.pdf', { method: 'PUT', body: 'a' })).toBe(201);
    expect(await statusOf('copies/one/a%20b.pdf', { method: 'GET' }, client('wrong'))).toBe(403);
    expect(await statusOf('copies/one/a%20b.pdf', { method: 'GET' }, client(SECRET, 'other'))).toBe(403);
    expect((await fetch(`${url}/s3/copies/one/a%20b.pdf`)).status).toBe(403);
    const old = await client().sign(`${url}/s3/copies/one/a%20b.pdf`, { aws: { datetime: '20200101T000000Z' } });
    expect((await fetch(old)).status).toBe(403);
  });

  it('are there before they are written to, and keep what is there where that is asked for', async () => {
    expect(await statusOf('nowhere/a.pdf', { method: 'PUT', body: 'a' })).toBe(404);
    expect(await statusOf('copies', { method: 'HEAD' })).toBe(200);
    const headers = { 'if-none-match': '*' };
    expect(await statusOf('copies/c.pdf', { method: 'PUT', body: 'c', headers })).toBe(201);
    expect(await statusOf('copies/c.pdf', { method: 'PUT', body: 'd', headers })).toBe(412);
    expect(await statusOf('copies/d.pdf', { method: 'GET' })).toBe(404);
  });
});

it('does what goes wrong on purpose, then goes on', async () => {
  const fault = { on: 'read', kind: 'status', status: 503, times: 1 };
  await fetch(`${url}/faults`, { method: 'POST', body: JSON.stringify(fault) });
  const ask = () => fetch(`${url}/dav/`, { method: 'PROPFIND' });
  expect([(await ask()).status, (await ask()).status]).toEqual([503, 401]);
});
