import { randomUUID } from 'node:crypto';
import type { Lumbix } from './lumbix';

/** A filing that Lumbix accepted, under the key that it was sent with. */
export interface Accepted {
  key: string;
  id: string;
  deal: string;
}

interface Proof {
  id: string;
  findings: { id: string; severity: string }[];
}

const PAUSE = 250;
const PATIENCE = 30_000;

/** Somebody who files one document after the other and repeats what gets no answer, with the same key each time. */
export class Caller {
  #cookie = '';

  constructor(
    readonly lumbix: Lumbix,
    /** What it files. */
    private readonly template = 'glasshouse-quote',
  ) {}

  /** Proofs the ordinary quote for one deal after the other. Gives what filing them takes. */
  async proofs(deals: readonly string[], count: number): Promise<object[]> {
    const proofs: object[] = [];
    for (let each = 0; each < count; each++) proofs.push(await this.#proof(deals[each % deals.length]!));
    return proofs;
  }

  async fileProofs(proofs: readonly object[]): Promise<void> {
    for (const proof of proofs) await this.#persist('/api/documents', proof, randomUUID());
  }

  async #proof(deal: string): Promise<object> {
    const { id, findings } = await this.#persist<Proof>('/api/productions', {
      template: this.template,
      record: deal,
      // Each has a number of its own: of two revisions at once, one would be told that the other was faster.
      choices: { asNew: true },
    });
    const warnings = findings.filter(({ severity }) => severity === 'warns');
    return {
      production: id,
      // Another quote may be filed for the deal between the proof and its filing.
      skips: Object.fromEntries(
        ['filed before', ...warnings.map((each) => each.id)].map((id) => [id, 'agreed by telephone']),
      ),
    };
  }

  /** Files the ordinary quote for a deal. `double`: sends the filing twice at once. */
  async file(deal: string, double: boolean): Promise<Accepted> {
    for (;;) {
      const proof = await this.#proof(deal);
      const key = randomUUID();
      const send = () => this.#persist<{ id: string } | undefined>('/api/documents', proof, key);
      const [one, other] = await Promise.all([send(), double ? send() : undefined]);
      if (one && other && one.id !== other.id) throw new Error(`The key ${key} became two documents.`);
      // Undefined where the deal changed since its proof: then it is proofed again.
      if (one) return { key, id: one.id, deal };
    }
  }

  /** Sends a request until it is answered. Gives undefined where it is refused for what happened meanwhile. */
  async #persist<Answer>(path: string, body: object, key?: string): Promise<Answer> {
    for (;;) {
      const response = await this.#send(path, body, key).catch(() => undefined);
      if (response?.ok) {
        const answer = await response.json().catch(() => undefined);
        if (answer !== undefined) return answer as Answer;
      } else if (response?.status === 401) await this.signIn().catch(() => undefined);
      else if (response?.status === 409) return undefined as Answer;
      else if (response && response.status < 500 && response.status !== 429)
        throw new Error(`${path}: ${response.status} ${await response.text()}`);
      await pause(PAUSE);
    }
  }

  get(path: string): Promise<Response> {
    return this.#send(path);
  }

  /** Sends JSON, or a file as it is. */
  send(path: string, body: object): Promise<Response> {
    return this.#send(path, body);
  }

  async signIn(): Promise<void> {
    const { demo } = (await (await this.#send('/api/sign-in')).json()) as { demo: { id: string }[] };
    const response = await this.#send('/api/sign-in/demo', { id: demo[0]!.id });
    this.#cookie = response.headers
      .getSetCookie()
      .map((each) => each.split(';')[0])
      .join('; ');
  }

  #send(path: string, body?: object, key?: string): Promise<Response> {
    return fetch(`${this.lumbix.url}${path}`, {
      method: body ? 'POST' : 'GET',
      headers: {
        cookie: this.#cookie,
        ...(body && { 'content-type': Buffer.isBuffer(body) ? 'application/octet-stream' : 'application/json' }),
        ...(key && { 'idempotency-key': key }),
      },
      body: Buffer.isBuffer(body) ? new Uint8Array(body) : body && JSON.stringify(body),
      signal: AbortSignal.timeout(PATIENCE),
    });
  }
}

export const pause = (milliseconds: number) => new Promise<void>((done) => setTimeout(done, milliseconds));
