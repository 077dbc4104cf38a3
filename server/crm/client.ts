import { crmConnection, type CrmConnection } from './connection';

/** Why the CRM did not do what was asked. */
export type CrmFailure = 'away' | 'refused' | 'conflict' | 'missing';

/** A request to the CRM that failed, with a sentence for people. `away` passes: the same request may be answered later. */
export class CrmError extends Error {
  constructor(
    readonly failure: CrmFailure,
    message: string,
    readonly status?: number,
    /** Where the CRM surely did nothing: even what may not be done twice may be sent again, after so many milliseconds. */
    readonly again?: number,
  ) {
    super(message);
    this.name = 'CrmError';
  }
}

export interface CrmRequest {
  method?: 'GET' | 'PATCH' | 'POST';
  /** Relative to the service root, percent-encoded; or a link of the service's own, which may be absolute. */
  path: string;
  headers?: Record<string, string>;
  body?: string | Uint8Array<ArrayBuffer>;
  /** Whether sending it twice does the same as sending it once; only such requests are repeated. */
  repeatable: boolean;
  /** How often it is sent at most, where it is repeatable: once, where whoever asks tries again by themselves. */
  attempts?: number;
}

const TIMEOUT = 10_000;
const ATTEMPTS = 4;
const FIRST_PAUSE = 120;

let token: { of: string; value: string; expires: number } | undefined;

/**
 * Sends a request to the CRM's OData service and reads its answer, with a token, a time limit for all of it, and repeated
 * attempts with growing pauses after whatever passes.
 * @throws CrmError
 */
export async function requestCrm<T>(request: CrmRequest, read: (response: Response) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await once(request, read);
    } catch (problem) {
      if (!(problem instanceof CrmError) || problem.failure !== 'away') throw problem;
      if (attempt >= (request.attempts ?? ATTEMPTS)) throw problem;
      if (!request.repeatable && problem.again === undefined) throw problem;
      await pause(Math.max(FIRST_PAUSE * 2 ** (attempt - 1), problem.again ?? 0));
    }
  }
}

/** What most answers are read as. */
export const asJson = <T>(response: Response): Promise<T> => response.json() as Promise<T>;

async function once<T>(
  { method = 'GET', path, headers, body }: CrmRequest,
  read: (response: Response) => Promise<T>,
): Promise<T> {
  const connection = await crmConnection();
  const authorization = `Bearer ${await accessToken(connection)}`;
  const response = await sent(addressOf(connection, path), {
    method,
    body,
    headers: {
      Accept: 'application/json;IEEE754Compatible=true',
      'OData-MaxVersion': '4.01',
      ...headers,
      Authorization: authorization,
    },
  });
  if (!response.ok) throw await failureOf(response);
  return readWhole(response, read);
}

/** Where a request goes: to the service itself, since the token goes with it. @throws CrmError */
function addressOf({ url }: CrmConnection, path: string): string {
  const root = `${url}/odata/`;
  const address = new URL(path, root);
  if (address.href.startsWith(new URL(root).href)) return address.href;
  throw new CrmError('away', 'The CRM leads to another address than its own, where Lumbix does not follow.');
}

/** The answer to a request, within the time limit, which holds for the reading of it too. @throws CrmError */
async function sent(url: string, request: RequestInit): Promise<Response> {
  try {
    return await fetch(url, { ...request, signal: AbortSignal.timeout(TIMEOUT) });
  } catch (problem) {
    throw away(problem, 'The CRM cannot be reached.');
  }
}

/** An answer that breaks off, stalls or is another page with status 200 is none. @throws CrmError */
async function readWhole<T>(response: Response, read: (response: Response) => Promise<T>): Promise<T> {
  try {
    return await read(response);
  } catch (problem) {
    throw away(problem, 'The CRM’s answer broke off or cannot be read.');
  }
}

function away(problem: unknown, otherwise: string): CrmError {
  const slow = problem instanceof Error && problem.name === 'TimeoutError';
  return new CrmError('away', slow ? 'The CRM took too long to answer.' : otherwise);
}

/** Statuses that say nothing of the request itself (RFC 9110, 15.5; RFC 4918, 11.3; RFC 6585, 4). */
const PASSING = new Set([401, 408, 423, 429]);

/** What an answer that is no success means. A refusal is an OData error for this very request; everything else passes. */
async function failureOf(response: Response): Promise<CrmError> {
  const { status } = response;
  const answer = (await response.json().catch(() => undefined)) as { error?: { message?: unknown } } | undefined;
  const message = typeof answer?.error?.message === 'string' ? answer.error.message : undefined;
  if (status === 401) {
    token = undefined;
    return new CrmError('away', CREDENTIALS, status, 0);
  }
  if (PASSING.has(status) || status >= 500 || message === undefined) {
    const notDone = status === 423 || status === 429 || status === 503 ? retryAfter(response) : undefined;
    return new CrmError('away', `The CRM answered with an error (${status}).`, status, notDone);
  }
  if (status === 404) return new CrmError('missing', message, status);
  return new CrmError(status === 409 || status === 412 ? 'conflict' : 'refused', message, status);
}

const CREDENTIALS = 'The CRM does not accept Lumbix’s credentials. Look at the connection in Setup.';

/** OAuth 2.0 client credentials, kept until a minute before they expire. @throws CrmError */
async function accessToken(connection: CrmConnection): Promise<string> {
  const of = JSON.stringify(connection);
  if (token?.of === of && token.expires > Date.now()) return token.value;
  const answer = await newToken(connection).catch((problem: unknown) => {
    // Of a request that was never sent, nothing is refused for good.
    throw problem instanceof CrmError ? new CrmError('away', problem.message, problem.status, 0) : problem;
  });
  token = { of, value: answer.access_token, expires: Date.now() + (answer.expires_in - 60) * 1_000 };
  return token.value;
}

/** Asks the CRM for a token, which it gives only to whom it knows. @throws CrmError */
export async function letIn(connection: CrmConnection): Promise<void> {
  await newToken(connection);
}

async function newToken({
  url,
  clientId,
  clientSecret,
}: CrmConnection): Promise<{ access_token: string; expires_in: number }> {
  const response = await sent(`${url}/oauth/token`, {
    method: 'POST',
    body: new URLSearchParams({ grant_type: 'client_credentials', client_id: clientId, client_secret: clientSecret }),
  });
  if (response.status >= 500)
    throw new CrmError('away', `The CRM gives no tokens now (${response.status}).`, response.status);
  if (!response.ok) throw new CrmError('refused', CREDENTIALS, response.status);
  const answer = await readWhole(response, asJson<{ access_token?: unknown; expires_in?: unknown }>);
  if (typeof answer.access_token !== 'string' || typeof answer.expires_in !== 'number')
    throw new CrmError('refused', 'What stands at this address does not give tokens as a CRM does.', response.status);
  return { access_token: answer.access_token, expires_in: answer.expires_in };
}

function retryAfter(response: Response): number {
  const seconds = Number(response.headers.get('retry-after') ?? 0);
  return Number.isFinite(seconds) ? Math.min(seconds, 10) * 1_000 : 0;
}

const pause = (milliseconds: number) => new Promise((done) => setTimeout(done, milliseconds));
