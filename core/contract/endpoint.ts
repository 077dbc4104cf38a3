import type { ISchema, InferType } from 'yup';
import type { Permission } from './permissions';

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/** Statuses that an endpoint answers with where it cannot do what it is asked for; the usual ones are added by `problemsOf`. */
type ProblemStatus = 401 | 404 | 409 | 410 | 413 | 422 | 429 | 503;

/** A body of bytes, or an answer of bytes: what they are, and how many may come. */
export interface FileContent {
  file: string;
  /** In bytes; of bodies alone. */
  most?: number;
}

/** An answer that is a stream of server-sent events, each with JSON of a shape. */
export interface EventContent {
  events: ISchema<unknown>;
}

/**
 * One route, said once. From it come the check of what comes in, the types of server and pages, who may call it, the
 * OpenAPI document, and what the security tests try.
 */
export interface Endpoint {
  /** What it does, in a sentence. */
  about: string;
  /** What the caller must be permitted; `own` takes any signed-in person, `anyone` nobody in particular. */
  may: Permission | 'own' | 'anyone';
  /** In the path: `{id}`. Texts. */
  parameters?: ISchema<unknown>;
  /** Read from texts, with defaults. */
  query?: ISchema<unknown>;
  body?: ISchema<unknown> | FileContent;
  answer: ISchema<unknown> | FileContent | EventContent;
  /** Of an answer; 200 where none is said. */
  status?: 201 | 202;
  problems?: readonly ProblemStatus[];
  /**
   * What happens when the same request comes twice: `safe` changes nothing at all, `same` leaves what the first one left,
   * `again` does it again, `keyed` asks for a key in the header `Idempotency-Key`, and does it once for each key.
   */
  twice: 'safe' | 'same' | 'again' | 'keyed';
  /** Requests of one caller in a minute, where fewer than usual are let in. */
  perMinute?: number;
  /** A token does not reach it: only a person who is signed in. */
  people?: true;
}

/** An endpoint of which everything is known to the types that read it. */
export const endpoint = <const Given extends Endpoint>(given: Given): Given => given;

/** Endpoints by method and path: `GET /deals/{id}`. */
export type Endpoints = Readonly<Record<`${Method} /${string}`, Endpoint>>;

type Read<Of> = Of extends ISchema<unknown> ? InferType<Of> : undefined;

/** What comes in, checked. */
export type ParametersOf<E extends Endpoint> = Read<E['parameters']>;
export type QueryOf<E extends Endpoint> = Read<E['query']>;
export type BodyOf<E extends Endpoint> = E['body'] extends FileContent ? Uint8Array : Read<E['body']>;

/** What goes out, as JSON. */
export type AnswerOf<E extends Endpoint> = E['answer'] extends ISchema<unknown> ? InferType<E['answer']> : never;
export type EventOf<E extends Endpoint> = E['answer'] extends EventContent ? InferType<E['answer']['events']> : never;

/** JSON as a server hands it over: moments of time may still be dates. */
export type Served<T> = T extends string
  ? T | Date
  : T extends readonly (infer Each)[]
    ? readonly Served<Each>[]
    : T extends object
      ? { readonly [Key in keyof T]: Served<T[Key]> }
      : T;

export const isFile = (content: unknown): content is FileContent => typeof content === 'object' && 'file' in content!;
export const isEvents = (content: unknown): content is EventContent =>
  typeof content === 'object' && 'events' in content!;

/** Every status that an endpoint may answer a problem with: its own, and those that its place brings. */
export function problemsOf({ may, body, problems = [] }: Endpoint): readonly number[] {
  const usual = [400, 403, 421, 429, 500, 503, ...(may === 'anyone' ? [] : [401]), ...(body ? [413, 415, 422] : [])];
  return [...new Set([...usual, ...problems])].sort((one, other) => one - other);
}
