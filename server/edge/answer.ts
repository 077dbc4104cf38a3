import type { H3Event } from 'h3';
import type {
  AnswerOf,
  BodyOf,
  Endpoint,
  EventContent,
  EventOf,
  FileContent,
  ParametersOf,
  QueryOf,
  Served,
} from '../../core/contract/endpoint';
import type { Caller } from '../people/caller';
import type { Encoding } from '../compress';
import type { Services } from '../services';

/** A request that was let in: what it brings, in the shapes of its endpoint. */
export interface Call<E extends Endpoint> {
  parameters: ParametersOf<E>;
  query: QueryOf<E>;
  body: BodyOf<E>;
  /** What the caller named the request by, where the endpoint asks for it. */
  key: E['twice'] extends 'keyed' ? string : undefined;
  services: Services;
  /** Who asks; at an endpoint for anyone, whoever is signed in. */
  caller: E['may'] extends 'anyone' ? Caller | undefined : Caller;
  event: H3Event;
}

/** Bytes to send, with the headers that say what they are. */
export interface SentFile {
  bytes: Uint8Array | string;
  headers: Readonly<Record<string, string>>;
}

/** JSON that is made and compressed already, where it is large. */
export class EncodedJson<T> {
  /** Holds what it is JSON of, for the types alone. */
  declare readonly of: T;

  constructor(
    readonly bytes: Uint8Array,
    readonly encoding: Encoding,
  ) {}
}

/** Begins to send events; gives what ends it. */
export type Subscription<Event> = (send: (event: Served<Event>) => Promise<void>) => () => void;

/** What an endpoint's function gives. */
export type Given<E extends Endpoint> = E['answer'] extends FileContent
  ? SentFile
  : E['answer'] extends EventContent
    ? Subscription<EventOf<E>>
    : Served<AnswerOf<E>> | EncodedJson<AnswerOf<E>>;

/** One function for each endpoint of a part of the contract. */
export type Answers<Part extends Readonly<Record<string, Endpoint>>> = {
  readonly [Key in keyof Part]: (call: Call<Part[Key]>) => Given<Part[Key]> | Promise<Given<Part[Key]>>;
};
