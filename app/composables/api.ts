import type { TemplateChange } from '~~/core/template/compare';
import type { Template } from '#core/template/template';
import { addressOf, type EndpointKey, type InAddress, type Needed } from '#core/contract/address';
import type { Contract } from '#core/contract/contract';
import type { AnswerOf, BodyOf, FileContent } from '#core/contract/endpoint';
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
  /** What a template file would change in the template that it would replace. */
  templateChanges?: TemplateChange[];
  /** What somebody else made of a draft, where two changed it. */
  draft?: { template: Template; revision: number; editedBy: string | null; editedAt: string | null };
  /** The version that was published meanwhile. */
  version?: { versionId: string };
  /** Records that a template would stop on. */
  records?: { type: string; id: string; name: string; sentences: string[] }[];
}

/** What an endpoint answers. */
export type Answer<Key extends EndpointKey> = AnswerOf<Contract[Key]>;

/** A document as a row of the register. */
export type DocumentRow = Answer<'GET /documents'>['documents'][number];

/** What a call brings: the parts that its endpoint has a shape for. */
type Brought<Key extends EndpointKey> = InAddress<Key> &
  (Contract[Key] extends { twice: 'keyed' } ? { key: string } : unknown) &
  (Contract[Key] extends { body: FileContent } ? { body: Blob } : Needed<'body', BodyOf<Contract[Key]>>);

/** What a call takes after its key: nothing, where the endpoint has no shape for anything. */
type Given<Key extends EndpointKey> = unknown extends Brought<Key> ? [] : [brought: Brought<Key>];

type Parts = {
  body?: unknown;
  /** Names what is asked for: sent again with the same key, it is not done again. */
  key?: string;
};

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
export function callServer<Key extends EndpointKey>(key: Key, ...given: Given<Key>): Promise<Answer<Key>> {
  const { body, key: named } = (given[0] ?? {}) as Parts;
  const [method] = key.split(' ') as ['GET'];
  // Its own types follow file names of routes, of which there is one.
  const call = $fetch as (path: string, options: object) => Promise<Answer<Key>>;
  return call(addressOf<EndpointKey>(key, ...(given as [])), {
    method,
    // Once more where the server was not there. What the CRM refused (503) the server has tried again itself.
    retryStatusCodes: [408, 425, 500, 502, 504],
    body: body as BodyInit,
    headers: {
      ...(body instanceof Blob && { 'Content-Type': 'application/octet-stream' }),
      ...(named !== undefined && { 'Idempotency-Key': named }),
    },
  });
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
