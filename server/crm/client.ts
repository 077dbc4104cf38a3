import { crmConnection, type CrmConnection } from './connection';

/** Why the CRM did not do what was asked. */
export type CrmFailure = 'away' | 'refused' | 'conflict' | 'missing';

/** A request to the CRM that failed, with a sentence for people. */
export class CrmError extends Error {
  constructor(
    readonly failure: CrmFailure,
    message: string,
    readonly status?: number,
  ) {
    super(message);
    this.name = 'CrmError';
  }
}

export interface CrmRequest {
  method?: 'GET' | 'PATCH' | 'POST';
  /** Relative to the service root, percent-encoded. */
  path: string;
  headers?: Record<string, string>;
  body?: string | Uint8Array<ArrayBuffer>;
  /** Whether sending it twice does the same as sending it once; only such requests are repeated. */
  repeatable: boolean;
}

const TIMEOUT = 10_000;
const ATTEMPTS = 4;
const FIRST_PAUSE = 120;

let token: { of: string; value: string; expires: number } | undefined;

/**
 * Sends a request to the CRM's OData service, with a token, a time limit, and repeated attempts with growing pauses
 * after 429, 5xx and lost connections.
 * @throws CrmError
 */
export async function requestCrm(request: CrmRequest): Promise<Response> {
  let last: CrmError | undefined;
  for (let attempt = 0; attempt < ATTEMPTS; attempt++) {
    if (attempt > 0) await pause(FIRST_PAUSE * 2 ** (attempt - 1));
    const outcome = await send(request).catch((problem: unknown) => away(problem));
    if (outcome instanceof CrmError) {
      last = outcome;
      if (!request.repeatable) throw last;
      continue;
    }
    if (outcome.ok) return outcome;
    if (outcome.status === 401 && attempt === 0) {
      token = undefined;
      continue;
    }
    if (outcome.status !== 429 && outcome.status < 500) throw await refusal(outcome);
    last = new CrmError(
      'away',
      `The CRM answered with an error (${outcome.status}). Try again in a moment.`,
      outcome.status,
    );
    const mayRepeat = request.repeatable || outcome.status === 429 || outcome.status === 503;
    if (!mayRepeat) throw last;
    await pause(retryAfter(outcome));
  }
  throw (
    last ?? new CrmError('away', 'The CRM does not accept Lumbix’s credentials. Look at the connection in Setup.', 401)
  );
}

async function send({ method = 'GET', path, headers, body }: CrmRequest): Promise<Response> {
  const connection = await crmConnection();
  const authorization = `Bearer ${await accessToken(connection)}`;
  return fetch(`${connection.url}/odata/${path}`, {
    method,
    body,
    headers: {
      Accept: 'application/json;IEEE754Compatible=true',
      'OData-MaxVersion': '4.01',
      ...headers,
      Authorization: authorization,
    },
    signal: AbortSignal.timeout(TIMEOUT),
  });
}

/** OAuth 2.0 client credentials, kept until a minute before they expire. */
async function accessToken(connection: CrmConnection): Promise<string> {
  const of = JSON.stringify(connection);
  if (token?.of === of && token.expires > Date.now()) return token.value;
  const answer = await newToken(connection);
  token = { of, value: answer.access_token, expires: Date.now() + (answer.expires_in - 60) * 1_000 };
  return token.value;
}

/** Asks the CRM for a token, which it gives only to whom it knows. @throws CrmError */
export async function letIn(connection: CrmConnection): Promise<void> {
  await newToken(connection).catch((problem: unknown) => {
    throw away(problem);
  });
}

async function newToken({
  url,
  clientId,
  clientSecret,
}: CrmConnection): Promise<{ access_token: string; expires_in: number }> {
  const response = await fetch(`${url}/oauth/token`, {
    method: 'POST',
    body: new URLSearchParams({ grant_type: 'client_credentials', client_id: clientId, client_secret: clientSecret }),
    signal: AbortSignal.timeout(TIMEOUT),
  });
  if (!response.ok) throw new CrmError('refused', 'The CRM does not accept Lumbix’s credentials.', response.status);
  const answer = (await response.json().catch(() => undefined)) as
    { access_token?: unknown; expires_in?: unknown } | undefined;
  if (typeof answer?.access_token !== 'string' || typeof answer.expires_in !== 'number')
    throw new CrmError('refused', 'What stands at this address does not give tokens as a CRM does.', response.status);
  return { access_token: answer.access_token, expires_in: answer.expires_in };
}

function away(problem: unknown): CrmError {
  if (problem instanceof CrmError) return problem;
  const slow = problem instanceof Error && problem.name === 'TimeoutError';
  return new CrmError('away', slow ? 'The CRM took too long to answer.' : 'The CRM cannot be reached.');
}

async function refusal(response: Response): Promise<CrmError> {
  const answer = (await response.json().catch(() => undefined)) as { error?: { message?: string } } | undefined;
  const message = answer?.error?.message ?? `The CRM refused this (${response.status}).`;
  if (response.status === 404) return new CrmError('missing', message, 404);
  if (response.status === 412 || response.status === 409) return new CrmError('conflict', message, response.status);
  return new CrmError('refused', message, response.status);
}

function retryAfter(response: Response): number {
  const seconds = Number(response.headers.get('retry-after') ?? 0);
  return Number.isFinite(seconds) ? Math.min(seconds, 10) * 1_000 : 0;
}

const pause = (milliseconds: number) => new Promise((done) => setTimeout(done, milliseconds));
