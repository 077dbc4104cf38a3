import { expect, test, type APIRequestContext, type APIResponse } from '@playwright/test';
import { randomBytes } from 'node:crypto';
import { contract } from '../core/contract/contract';
import { isFile, problemsOf, type Endpoint } from '../core/contract/endpoint';
import { PERMISSIONS, ROLES, type Role } from '../core/contract/permissions';
import { anybody, callerWith, EVERYTHING, inDatabase } from './callers';

/** Every endpoint is tried by whom it is not for, and with what it should not be given. */
const ENDPOINTS = Object.entries(contract as Readonly<Record<string, Endpoint>>);
const GUARDED = ENDPOINTS.filter(([, { may }]) => may !== 'anyone');
const WITH_BODY = ENDPOINTS.filter(([, { body }]) => body !== undefined && !isFile(body));

/** A request of an endpoint, with what may follow its path, that no record, template or person stands behind. */
function ask(
  caller: APIRequestContext,
  key: string,
  { headers = {}, body = '{}', id = '0190a3c2-7d1e-7b1c-9a55-0123456789ab' } = {},
): Promise<APIResponse> {
  const [method, path] = key.split(' ') as [string, string];
  const { body: takes } = contract[key.split('?')[0] as keyof typeof contract] as Endpoint;
  return caller.fetch(`/api${path.replaceAll(/\{\w+\}/g, id)}`, {
    method,
    headers: { ...(takes && { 'content-type': isFile(takes) ? takes.file : 'application/json' }), ...headers },
    data: takes && Buffer.from(body),
  });
}

/** Its status, once it is sure that it is told as problem details, within two seconds, and in words. */
async function refusal(call: Promise<APIResponse>): Promise<number> {
  const began = Date.now();
  const response = await call;
  expect(Date.now() - began, response.url()).toBeLessThan(2_000);
  expect(response.headers()['content-type'], response.url()).toContain('application/problem+json');
  const problem = (await response.json()) as { status: number; title: string; detail: string };
  expect(problem.status).toBe(response.status());
  expect(`${problem.title} ${problem.detail}`.length).toBeLessThan(1_000);
  expect(problem.detail).toMatch(/\.$/);
  return response.status();
}

/** A session of its own, that something was done to in the database. */
async function sessionThat(change: string): Promise<APIRequestContext> {
  const caller = await callerWith(...EVERYTHING);
  const [newest] = await inDatabase('select id from sessions order by created_at desc limit 1');
  await inDatabase(`update sessions set ${change} where id = $1`, [newest!.id]);
  return caller;
}

test('nobody gets in without a session that holds', async () => {
  const callers: [string, APIRequestContext][] = [
    ['no session', await anybody()],
    ['a forged cookie', await anybody({ cookie: `lumbix=${randomBytes(40).toString('base64url')}` })],
    [
      'a cookie of a key that is not ours',
      await anybody({ cookie: `lumbix=00000000.${randomBytes(80).toString('base64url')}` }),
    ],
    ['a session that was withdrawn', await sessionThat('ended_at = now()')],
    ['a session of yesterday', await sessionThat("created_at = now() - interval '13 hours'")],
    ['a session that nobody used for long', await sessionThat("seen_at = now() - interval '5 hours'")],
    [
      'a token that nobody made',
      await anybody({ authorization: `Bearer lumbix_${randomBytes(32).toString('base64url')}` }),
    ],
    ['no token at all', await anybody({ authorization: 'Basic YWRtaW46YWRtaW4=' })],
  ];
  for (const [who, caller] of callers)
    for (const [key] of GUARDED) expect(await refusal(ask(caller, key)), `${key} with ${who}`).toBe(401);
});

test('a session of somebody whose access was taken away does not hold', async () => {
  const caller = await callerWith('reader');
  await inDatabase("update people set withdrawn_at = now() where email = 'gil@orrinvale.example'");
  try {
    expect(await refusal(ask(caller, 'GET /me'))).toBe(401);
  } finally {
    await inDatabase("update people set withdrawn_at = null where email = 'gil@orrinvale.example'");
  }
});

for (const role of ROLES) {
  test(`the role ${role} opens what it is for, and nothing else`, async () => {
    const caller = await callerWith(role);
    for (const [key, { may }] of GUARDED) {
      // Tried by others below; it would end the session that tries.
      if (key === 'DELETE /session') continue;
      const isFor = may === 'own' || (PERMISSIONS[may as 'look'].roles as readonly Role[]).includes(role);
      const response = await ask(caller, key);
      if (isFor) expect([401, 403], `${key} as ${role}`).not.toContain(response.status());
      else expect(await refusal(Promise.resolve(response)), `${key} as ${role}`).toBe(403);
      expect(response.status(), `${key} as ${role}`).toBeLessThan(500);
    }
  });
}

test('a token reaches what its roles are for, and never what only people do', async () => {
  const person = await callerWith(...EVERYTHING);
  const made = await person.post('/api/me/tokens', { data: { name: 'Reads only', roles: ['producer'], days: 1 } });
  const { token, id } = (await made.json()) as { token: string; id: string };
  const program = await anybody({ authorization: `Bearer ${token}` });
  for (const [key, { may, people }] of GUARDED) {
    const isFor =
      !people && (may === 'own' || (PERMISSIONS[may as 'look'].roles as readonly Role[]).includes('producer'));
    const response = await ask(program, key);
    if (isFor) expect([401, 403], key).not.toContain(response.status());
    else expect(await refusal(Promise.resolve(response)), key).toBe(403);
  }
  expect((await person.delete(`/api/me/tokens/${id}`)).ok()).toBe(true);
  expect(await refusal(ask(program, 'GET /me'))).toBe(401);
  // The kept form of a token opens nothing.
  const [kept] = await inDatabase('select token_hash from api_tokens where id = $1', [id]);
  expect(await refusal(ask(await anybody({ authorization: `Bearer ${String(kept!.token_hash)}` }), 'GET /me'))).toBe(
    401,
  );
});

test('a token is for no longer than it says, and for no more than its person', async () => {
  const person = await callerWith('producer');
  expect(
    await refusal(person.post('/api/me/tokens', { data: { name: 'Too much', roles: ['administrator'], days: 1 } })),
  ).toBe(403);
  const made = await person.post('/api/me/tokens', { data: { name: 'Short', roles: ['producer'], days: 1 } });
  const { token, id } = (await made.json()) as { token: string; id: string };
  const program = await anybody({ authorization: `Bearer ${token}` });
  expect((await program.get('/api/me')).ok()).toBe(true);
  await inDatabase("update api_tokens set expires_at = now() - interval '1 second' where id = $1", [id]);
  expect(await refusal(ask(program, 'GET /me'))).toBe(401);
});

test('another site or another name reaches nothing', async () => {
  const caller = await callerWith(...EVERYTHING);
  for (const [key, { twice }] of ENDPOINTS) {
    const foreign = { origin: 'https://evil.example' };
    if (twice !== 'safe') expect(await refusal(ask(caller, key, { headers: foreign })), key).toBe(403);
    const beside = { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'no-cors' };
    expect(await refusal(ask(caller, key, { headers: beside })), key).toBe(403);
    expect(await refusal(ask(caller, key, { headers: { host: 'evil.example' } })), key).toBe(421);
  }
});

test('what is malformed, deep, large or of another type is refused in words', async () => {
  const caller = await callerWith(...EVERYTHING);
  const bodies: [string, string, readonly number[]][] = [
    ['nothing', '', [400]],
    ['no JSON', '{"a":', [400]],
    ['a list', '[]', [422]],
    ['nothing at all', 'null', [422]],
    ['a property that there is not', '{"isAdmin": true}', [422]],
    ['a name that is none', '{"__proto__": {"roles": ["administrator"]}}', [400]],
    ['NUL', '{"name": "a\\u0000b"}', [400]],
    ['half a character', '{"name": "\\ud800"}', [400]],
    ['a number that is too great', '{"days": 1e999}', [400]],
    ['much depth', `{"a":${'['.repeat(10_000)}`, [400]],
    ['many values', `[${'0,'.repeat(600_000)}0]`, [400]],
  ];
  for (const [key, endpoint] of WITH_BODY) {
    for (const [what, body, statuses] of bodies) {
      const status = await refusal(ask(caller, key, { body }));
      expect(statuses, `${key} with ${what}`).toContain(status);
      expect(problemsOf(endpoint), `${key} says nothing of ${status}`).toContain(status);
    }
    expect(await refusal(ask(caller, key, { headers: { 'content-type': 'text/plain' } })), key).toBe(415);
    const headers = { 'content-length': '50000000' };
    expect(
      await refusal(ask(caller, key, { headers, body: `"${'x'.repeat(21_000_000)}"` })).catch(() => 413),
      key,
    ).toBe(413);
  }
});

test('no refusal repeats what was sent', async () => {
  const caller = await callerWith(...EVERYTHING);
  const marker = 'zq7repeated';
  const quiet = async (response: APIResponse) => {
    if (response.status() >= 400) expect(await response.text(), response.url()).not.toContain(marker);
  };
  for (const [key, endpoint] of ENDPOINTS) {
    // What is wrong in a file of somebody's own is quoted, so that they find it; signing out ends what asks.
    if ((endpoint.body && isFile(endpoint.body)) || key === 'DELETE /session' || key === 'DELETE /me/sessions')
      continue;
    const [method, path] = key.split(' ') as [string, string];
    await quiet(await ask(caller, key, { id: marker }));
    await quiet(await ask(caller, `${key}?${marker}=${marker}`));
    for (const name of Object.keys(Object(Object(endpoint.query).fields) as object)) {
      if (method === 'GET')
        await quiet(await caller.get(`/api${path.replaceAll(/\{\w+\}/g, marker)}?${name}=${marker}%00`));
      await quiet(await ask(caller, `${key}?${name}=${marker}`));
    }
    for (const name of Object.keys(Object(Object(endpoint.body).fields) as object))
      for (const value of [marker, [marker], { [marker]: marker }])
        await quiet(await ask(caller, key, { body: JSON.stringify({ [name]: value, [marker]: marker }) }));
  }
});

test('ids of others, of nobody and of no form lead nowhere', async () => {
  const caller = await callerWith(...EVERYTHING);
  const ids = [
    '..%2f..%2fetc%2fpasswd',
    '%00',
    '%E0%A4%A',
    'x'.repeat(3_000),
    "1' or '1'='1",
    '-1',
    '%7B%7D',
    '__proto__',
  ];
  for (const [key, endpoint] of ENDPOINTS.filter(([each]) => each.includes('{'))) {
    for (const id of ids) {
      const response = await ask(caller, key, { id });
      expect(response.status(), `${key} with ${id.slice(0, 30)}`).toBeLessThan(500);
      if (response.status() >= 400)
        expect([404, ...problemsOf(endpoint)], `${key} with ${id.slice(0, 30)}`).toContain(response.status());
    }
  }
  // Another person's session, token and proof are as good as none.
  const other = await callerWith('producer');
  const [mine] = (await (await caller.get('/api/me/sessions')).json()) as { id: string }[];
  expect(await refusal(other.delete(`/api/me/sessions/${mine!.id}`))).toBe(404);
  const data = { template: 'glasshouse-quote', record: 'D-1188' };
  const proof = (await (await caller.post('/api/productions', { data })).json()) as {
    id: string;
    figures: { workings: string }[];
  };
  const workings = `/api/productions/${proof.id}/workings?value=${encodeURIComponent(proof.figures[0]!.workings)}`;
  expect((await caller.get(workings)).ok()).toBe(true);
  expect(await refusal(other.get(workings))).toBe(404);
  expect(await refusal(other.get(`/api/productions/${proof.id}/trial`))).toBe(404);
  const filing = { data: { production: proof.id, skips: {} }, headers: { 'idempotency-key': 'theirs' } };
  expect(await refusal(other.post('/api/documents', filing))).toBe(404);
  expect(await refusal(caller.post('/api/documents', { data: filing.data }))).toBe(400);
});
