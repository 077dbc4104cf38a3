import { Agent as HttpAgent } from 'node:http';
import { Agent as HttpsAgent } from 'node:https';
import got, {
  HTTPError,
  RequestError,
  TimeoutError,
  type CancelableRequest,
  type OptionsInit,
  type Response,
} from 'got';
import { SourceError } from '../source';
import type { CrmConnection } from './connection';

export interface ODataRequest {
  method?: 'GET' | 'PATCH' | 'POST' | 'PUT';
  /** Relative to the service root, percent-encoded; or a link of the service's own, which may be absolute. */
  path: string;
  headers?: Record<string, string>;
  body?: string | Uint8Array;
  /** Whether sending it twice does the same as sending it once; only such requests are repeated. */
  repeatable: boolean;
  /** How often it is sent at most, where it is repeatable: once, where whoever asks tries again by themselves. */
  attempts?: number;
}

/** For all of a request, the reading of its answer too. */
const TIMEOUT = 10_000;
const ATTEMPTS = 4;
const FIRST_PAUSE = 120;
const LONGEST_PAUSE = 10_000;

const http = got.extend({
  agent: { http: new HttpAgent({ keepAlive: true }), https: new HttpsAgent({ keepAlive: true }) },
  timeout: { request: TIMEOUT },
  retry: { limit: 0 },
  // The token goes to the service alone.
  followRedirect: false,
  headers: { 'user-agent': 'Lumbix' },
});

/** Calls an OData service: with a token, a time limit, and repeated attempts with growing pauses after whatever passes. */
export class ODataClient {
  #token: { of: string; value: string; expires: number } | undefined;

  /** @param connection How the service is called now. */
  constructor(private readonly connection: () => Promise<CrmConnection>) {}

  /** What a request is answered with, read as JSON. @throws SourceError */
  json<T>(request: ODataRequest): Promise<T> {
    return this.#answer(request, { responseType: 'json' }) as Promise<T>;
  }

  /** The same, as text. @throws SourceError */
  text(request: ODataRequest): Promise<string> {
    return this.#answer(request, { responseType: 'text' }) as Promise<string>;
  }

  /** The same, as bytes. @throws SourceError */
  bytes(request: ODataRequest): Promise<Uint8Array> {
    return this.#answer(request, { responseType: 'buffer' }) as Promise<Uint8Array>;
  }

  async #answer(request: ODataRequest, options: OptionsInit): Promise<unknown> {
    const { method = 'GET', path, headers, body, repeatable, attempts = ATTEMPTS } = request;
    const connection = await this.connection();
    try {
      const asked = http(addressOf(connection, path), {
        ...options,
        method,
        body,
        headers: {
          accept: 'application/json;IEEE754Compatible=true',
          'odata-maxversion': '4.01',
          ...headers,
        },
        hooks: {
          beforeRequest: [
            async (sent) => void (sent.headers.authorization = `Bearer ${await this.#accessToken(connection)}`),
          ],
        },
        retry: {
          limit: attempts - 1,
          methods: ['GET', 'PATCH', 'POST', 'PUT'],
          calculateDelay: ({ attemptCount, error }) => {
            const { failure, again } = meaningOf(error);
            if (error.response?.statusCode === 401) this.#token = undefined;
            const isLast = attemptCount >= attempts || failure !== 'away';
            if (isLast || !(repeatable || again !== undefined)) return 0;
            return Math.max(FIRST_PAUSE * 2 ** (attemptCount - 1), again ?? 0);
          },
        },
      }) as CancelableRequest<Response>;
      const answer = await asked;
      if (answer.statusCode < 300) return answer.body;
      throw new SourceError('away', ELSEWHERE, answer.statusCode);
    } catch (thrown) {
      throw thrown instanceof RequestError ? meaningOf(thrown) : thrown;
    }
  }

  /** OAuth 2.0 client credentials, kept until a minute before they expire. @throws SourceError */
  async #accessToken(connection: CrmConnection): Promise<string> {
    const of = JSON.stringify(connection);
    if (this.#token?.of === of && this.#token.expires > Date.now()) return this.#token.value;
    const { access_token: value, expires_in: seconds } = await newToken(connection).catch((thrown: unknown) => {
      // Of a request that was never sent, nothing is refused for good.
      throw thrown instanceof SourceError ? new SourceError('away', thrown.message, thrown.status, 0) : thrown;
    });
    this.#token = { of, value, expires: Date.now() + (seconds - 60) * 1_000 };
    return value;
  }
}

/** Where a request goes: to the service itself, since the token goes with it. @throws SourceError */
function addressOf({ url }: CrmConnection, path: string): string {
  const root = `${url}/odata/`;
  const address = new URL(path, root);
  if (address.href.startsWith(new URL(root).href)) return address.href;
  throw new SourceError('away', ELSEWHERE);
}

const ELSEWHERE = 'The CRM leads to another address than its own, where Lumbix does not follow.';

/** Statuses that say nothing of the request itself (RFC 9110, 15.5; RFC 4918, 11.3; RFC 6585, 4). */
const PASSING = new Set([401, 408, 423, 429]);
/** Those among all that a service answers before it does anything. */
const NOT_DONE = new Set([423, 429, 503]);

/** What a failure means. A refusal is an OData error for this very request; everything else passes. */
function meaningOf(error: RequestError): SourceError {
  if (error.cause instanceof SourceError) return error.cause;
  if (error instanceof TimeoutError) return new SourceError('away', 'The CRM took too long to answer.');
  if (!(error instanceof HTTPError)) return new SourceError('away', error.response ? BROKEN : UNREACHED);
  const { statusCode: status, headers } = error.response;
  if (status === 401) return new SourceError('away', CREDENTIALS, status, 0);
  const message = messageOf(error);
  if (PASSING.has(status) || status >= 500 || message === undefined) {
    const again = NOT_DONE.has(status) ? retryAfter(headers['retry-after']) : undefined;
    return new SourceError('away', `The CRM answered with an error (${status}).`, status, again);
  }
  if (status === 404) return new SourceError('missing', message, status);
  return new SourceError(status === 409 || status === 412 ? 'conflict' : 'refused', message, status);
}

const UNREACHED = 'Nothing answers at the CRM’s address.';
const BROKEN = 'The CRM’s answer broke off or cannot be read.';
const CREDENTIALS = 'The CRM does not accept Lumbix’s credentials. Look at the connection in Setup.';

/** The message of an OData error (OData JSON format 4.01, 21.1); undefined where an answer is none. */
function messageOf({ response }: HTTPError): string | undefined {
  try {
    const { error } = JSON.parse(Buffer.from(response.rawBody).toString()) as { error?: { message?: unknown } };
    return typeof error?.message === 'string' ? error.message : undefined;
  } catch {
    return undefined;
  }
}

function retryAfter(header: string | undefined): number {
  const seconds = Number(header ?? 0);
  return Number.isFinite(seconds) ? Math.min(seconds * 1_000, LONGEST_PAUSE) : 0;
}

/** Asks the service for a token, which it gives only to whom it knows. @throws SourceError */
export async function letIn(connection: CrmConnection): Promise<void> {
  await newToken(connection);
}

/** RFC 6749, 4.4. @throws SourceError */
async function newToken({
  url,
  clientId,
  clientSecret,
}: CrmConnection): Promise<{ access_token: string; expires_in: number }> {
  const form = { grant_type: 'client_credentials', client_id: clientId, client_secret: clientSecret };
  const answer = await http.post(`${url}/oauth/token`, { form, responseType: 'json' }).catch((thrown: unknown) => {
    throw thrown instanceof RequestError ? tokenProblem(thrown) : thrown;
  });
  const { access_token, expires_in } = Object(answer.body) as { access_token?: unknown; expires_in?: unknown };
  if (typeof access_token !== 'string' || typeof expires_in !== 'number')
    throw new SourceError(
      'refused',
      'What stands at this address does not give tokens as a CRM does.',
      answer.statusCode,
    );
  return { access_token, expires_in };
}

function tokenProblem(error: RequestError): SourceError {
  if (!(error instanceof HTTPError)) return meaningOf(error);
  const status = error.response.statusCode;
  return status >= 500
    ? new SourceError('away', `The CRM gives no tokens now (${status}).`, status)
    : new SourceError('refused', CREDENTIALS, status);
}
