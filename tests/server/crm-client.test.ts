import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { letIn, ODataClient, type ODataRequest } from '../../server/records/odata/client';
import { SourceError } from '../../server/records/source';

/** What a made-up CRM answers to one request. */
interface Answer {
  status: number;
  body?: unknown;
  headers?: Record<string, string>;
  /** Half of the body is sent, then the connection is closed. */
  isCutOff?: boolean;
}
const odataError = (status: number, message = 'Not like this.'): Answer => ({
  status,
  body: { error: { code: String(status), message } },
});
const page = (status: number): Answer => ({ status, body: '<p>We are back soon.</p>' });
const fine: Answer = { status: 200, body: { value: 'fine' } };

let crm: Server;
let url: string;
/** What comes next, for tokens and for everything else; the last one of each goes on for good. */
let tokens: Answer[] = [];
let answers: Answer[] = [];
let asked: { path: string; token: string | undefined; method: string }[] = [];
let lifetime = 3_600;

beforeAll(async () => {
  crm = createServer(answer);
  await new Promise<void>((ready) => crm.listen(0, '127.0.0.1', ready));
  url = `http://127.0.0.1:${(crm.address() as AddressInfo).port}`;
});
afterAll(() => {
  crm.closeAllConnections();
  crm.close();
});
let client: ODataClient;
beforeEach(() => {
  tokens = [];
  answers = [fine];
  asked = [];
  lifetime = 3_600;
  // Another client each time, so that no token is left from before.
  client = new ODataClient(() => Promise.resolve({ url, clientId: 'lumbix', clientSecret: 'secret' }));
});

let given = 0;
function answer(request: IncomingMessage, response: ServerResponse): void {
  const isToken = request.url === '/oauth/token';
  if (!isToken)
    asked.push({
      path: request.url!,
      token: request.headers.authorization?.replace('Bearer ', ''),
      method: request.method!,
    });
  const script = isToken ? tokens : answers;
  const token: Answer = { status: 200, body: { access_token: `token-${++given}`, expires_in: lifetime } };
  const { status, body, headers = {}, isCutOff } = (script.length > 1 ? script.shift() : script[0]) ?? token;
  const text = typeof body === 'string' ? body : JSON.stringify(body ?? '');
  request.resume().on('end', () => {
    response.writeHead(status, {
      'Content-Type': 'application/json',
      'Content-Length': Buffer.byteLength(text),
      ...headers,
    });
    if (!isCutOff) return void response.end(text);
    response.write(text.slice(0, text.length / 2), () => request.socket.destroy());
  });
}

const ask = (request: Partial<ODataRequest> = {}) =>
  client.json<{ value: string }>({ path: 'Deals', repeatable: false, ...request });
const failure = async (request: Partial<ODataRequest> = {}): Promise<SourceError> => {
  const thrown: unknown = await ask(request).then(
    () => undefined,
    (problem: unknown) => problem,
  );
  expect(thrown).toBeInstanceOf(SourceError);
  return thrown as SourceError;
};

describe('a token', () => {
  it('is asked for once, however many requests there are', async () => {
    for (let each = 0; each < 3; each++) expect(await ask()).toEqual({ value: 'fine' });
    expect(new Set(asked.map(({ token }) => token)).size).toBe(1);
  });

  it('that holds no more is replaced, and the request sent again', async () => {
    await ask();
    answers = [odataError(401), fine];
    expect(await ask()).toEqual({ value: 'fine' });
    const [, refused, taken] = asked;
    expect(refused!.token).not.toBe(taken!.token);
  });

  it('is new once its time is over', async () => {
    lifetime = 60;
    await ask();
    await ask();
    expect(new Set(asked.map(({ token }) => token)).size).toBe(2);
  });

  it.each<[string, Answer, string]>([
    [
      'does not know the client',
      { status: 401, body: { error: 'invalid_client' } },
      'does not accept Lumbix’s credentials',
    ],
    ['is down', page(503), 'gives no tokens now (503)'],
    ['is another page', page(200), 'broke off or cannot be read'],
    ['gives something else', { status: 200, body: { access_token: 5 } }, 'does not give tokens as a CRM does'],
    ['breaks off', { status: 200, body: { access_token: 'x'.repeat(200) }, isCutOff: true }, 'broke off'],
  ])('that is not to be had passes, since nothing was sent: the service %s', async (_, given, sentence) => {
    tokens = [given];
    const problem = await failure({ attempts: 1 });
    expect(problem.failure).toBe('away');
    expect(problem.message).toContain(sentence);
    expect(asked).toEqual([]);
  });

  it('is given to whom a connection says; a wrong secret is refused where a person tries it', async () => {
    await letIn({ url, clientId: 'x', clientSecret: 'y' });
    tokens = [{ status: 401, body: {} }];
    await expect(letIn({ url, clientId: 'x', clientSecret: 'y' })).rejects.toMatchObject({ failure: 'refused' });
  });
});

describe('an answer that is no success', () => {
  it.each<[string, Answer, SourceError['failure']]>([
    ['400 with an OData error', odataError(400), 'refused'],
    ['403 with an OData error', odataError(403), 'refused'],
    ['413 with an OData error', odataError(413), 'refused'],
    ['422 with an OData error', odataError(422), 'refused'],
    ['404 with an OData error', odataError(404), 'missing'],
    ['409 with an OData error', odataError(409), 'conflict'],
    ['412 with an OData error', odataError(412), 'conflict'],
    ['408 with an OData error', odataError(408), 'away'],
    ['423 with an OData error', odataError(423), 'away'],
    ['429 with an OData error', odataError(429), 'away'],
    ['500 with an OData error', odataError(500), 'away'],
    ['401 again and again', odataError(401), 'away'],
    ['403 without one', page(403), 'away'],
    ['404 without one', page(404), 'away'],
    ['an error that has no message', { status: 400, body: { error: {} } }, 'away'],
    ['a page with 200', page(200), 'away'],
    ['one that is cut off', { ...fine, isCutOff: true }, 'away'],
  ])('%s means: %s', async (_, given, expected) => {
    answers = [given];
    expect((await failure({ repeatable: true, attempts: 1 })).failure).toBe(expected);
  });

  it('tells a refusal in the CRM’s own words', async () => {
    answers = [odataError(422, 'The stage Won is final.')];
    expect((await failure()).message).toBe('The stage Won is final.');
  });
});

describe('what passes', () => {
  it('is sent again up to four times, where sending it twice does the same', async () => {
    answers = [odataError(503), odataError(500), page(502), fine];
    expect(await ask({ repeatable: true })).toEqual({ value: 'fine' });
    expect(asked).toHaveLength(4);
    asked = [];
    answers = [odataError(503)];
    expect((await failure({ repeatable: true })).status).toBe(503);
    expect(asked).toHaveLength(4);
  });

  it('is sent once where it is not to be repeated, or where who asks tries again by themselves', async () => {
    answers = [odataError(500)];
    await failure({ method: 'PATCH', body: '{}' });
    await failure({ repeatable: true, attempts: 1 });
    expect(asked.map(({ method }) => method)).toEqual(['PATCH', 'GET']);
  });

  it('is sent again even then where the CRM surely did nothing, after as long as it asks for', async () => {
    answers = [{ ...odataError(429), headers: { 'Retry-After': '1' } }, fine];
    const began = Date.now();
    expect(await ask({ method: 'PATCH', body: '{}' })).toEqual({ value: 'fine' });
    expect(Date.now() - began).toBeGreaterThanOrEqual(990);
  });

  it('may ask for ten seconds at most, and says how long', async () => {
    answers = [{ ...odataError(503), headers: { 'Retry-After': '3600' } }];
    expect((await failure({ attempts: 1 })).again).toBe(10_000);
    answers = [{ ...odataError(503), headers: { 'Retry-After': 'Wed, 21 Oct 2026 07:28:00 GMT' } }];
    expect((await failure({ attempts: 1 })).again).toBe(0);
  });
});

describe('a link', () => {
  it('of the service’s own is followed, whole or from its root', async () => {
    await ask({ path: `${url}/odata/Deals?$skip=50` });
    await ask({ path: "Deals('D%201')/lines" });
    expect(asked.map(({ path }) => path)).toEqual(['/odata/Deals?$skip=50', "/odata/Deals('D%201')/lines"]);
  });
});
