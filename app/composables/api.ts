import type { Contract } from '#core/contract/contract';
import type { AnswerOf, BodyOf, FileContent, ParametersOf, QueryOf } from '#core/contract/endpoint';
import { useMeStore } from '~/stores/me';
import type { Finding } from '#core/production/findings/finding';

/** Problem details (RFC 9457) as the server tells them. */
export interface ApiProblem {
  status: number;
  title: string;
  detail: string;
  reason?: string;
  changes?: { what: string; before: string | null; after: string | null }[];
  findings?: Finding[];
  /** What is wrong in a file, each with its place. */
  faults?: { path: string; sentence: string }[];
  /** Records that a template would stop on. */
  records?: { type: string; id: string; name: string; sentences: string[] }[];
}

/** An endpoint of the server: `GET /records/{type}/{id}`. */
export type EndpointKey = keyof Contract;

/** What an endpoint answers. */
export type Answer<Key extends EndpointKey> = AnswerOf<Contract[Key]>;

/** A document as a row of the register. */
export type DocumentRow = Answer<'GET /documents'>['documents'][number];

type Needed<Name extends string, Part> = [Part] extends [undefined] ? unknown : { [Key in Name]: Part };

/** What a call brings: the parts that its endpoint has a shape for. What has a default may be left out. */
export type Brought<Key extends EndpointKey> = Needed<'parameters', ParametersOf<Contract[Key]>> &
  (undefined extends QueryOf<Contract[Key]> ? unknown : { query?: Partial<QueryOf<Contract[Key]>> }) &
  (Contract[Key] extends { twice: 'keyed' } ? { key: string } : unknown) &
  (Contract[Key] extends { body: FileContent } ? { body: Blob } : Needed<'body', BodyOf<Contract[Key]>>);

type Parts = {
  parameters?: Readonly<Record<string, string>>;
  query?: Readonly<Record<string, unknown>>;
  body?: unknown;
  /** Names what is asked for: sent again with the same key, it is not done again. */
  key?: string;
};

/** What a call takes after its key: nothing, where the endpoint has no shape for anything. */
type Given<Key extends EndpointKey> = unknown extends Brought<Key> ? [] : [brought: Brought<Key>];

/**
 * Calls the server. Where the session is over meanwhile, it asks the person to sign in again and then goes on: nothing that was
 * typed is lost. @throws what `asProblem` reads
 */
export async function api<Key extends EndpointKey>(key: Key, ...given: Given<Key>): Promise<Answer<Key>> {
  try {
    return await callServer(key, ...given);
  } catch (thrown) {
    const { status, reason } = asProblem(thrown);
    if (status !== 401 || reason !== 'session') throw thrown;
    await useMeStore().signInAgain();
    return callServer(key, ...given);
  }
}

/** Calls the server as it is. @throws what `asProblem` reads */
export function callServer<Key extends EndpointKey>(key: Key, ...[brought]: Given<Key>): Promise<Answer<Key>> {
  const { query, body, key: named, ...rest } = (brought ?? {}) as Parts;
  const [method] = key.split(' ') as ['GET'];
  // Its own types follow file names of routes, of which there is one.
  const call = $fetch as (path: string, options: object) => Promise<Answer<Key>>;
  return call(pathOf(key, rest), {
    method,
    query,
    body: body as BodyInit,
    headers: {
      ...(body instanceof Blob && { 'Content-Type': 'application/octet-stream' }),
      ...(named !== undefined && { 'Idempotency-Key': named }),
    },
  });
}

/** Where the browser itself finds what an endpoint answers: a file, a picture, events. */
export function addressOf<Key extends EndpointKey>(key: Key, brought: Brought<Key>): string {
  const parts = brought as Parts;
  const given = Object.entries(parts.query ?? {}).filter(([, value]) => value !== undefined);
  const query = new URLSearchParams(given.map(([name, value]) => [name, String(value)]));
  return `${pathOf(key, parts)}${given.length > 0 ? `?${query}` : ''}`;
}

function pathOf(key: EndpointKey, { parameters = {} }: Parts): string {
  const [, path] = key.split(' ') as [string, string];
  return `/api${path.replaceAll(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(parameters[name]!))}`;
}

/** The problem behind a failed call; a server that does not answer at all is one too. */
export function asProblem(thrown: unknown): ApiProblem {
  const problem = (thrown as { data?: ApiProblem })?.data;
  if (problem?.title) return problem;
  return {
    status: 0,
    title: 'Lumbix does not answer',
    detail: 'Look whether it is still running, then try again. Nothing was changed.',
  };
}
