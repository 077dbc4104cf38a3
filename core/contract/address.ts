import type { Contract } from './contract';
import type { ParametersOf, QueryOf } from './endpoint';

/** An endpoint of the server: `GET /records/{type}/{id}`. */
export type EndpointKey = keyof Contract;

/** A part of a call, where its endpoint has a shape for it. */
export type Needed<Name extends string, Part> = [Part] extends [undefined] ? unknown : { [Key in Name]: Part };

/** What may be asked for in the query of an endpoint; what has a default may be left out. */
export type Asked<Key extends EndpointKey> = Partial<QueryOf<Contract[Key]>>;

/** What stands in the address of a call. */
export type InAddress<Key extends EndpointKey> = Needed<'parameters', ParametersOf<Contract[Key]>> &
  (undefined extends QueryOf<Contract[Key]> ? unknown : { query?: Asked<Key> });

/** Where an endpoint is asked: its path with the parameters in it, and what is given of the query. */
export function addressOf<Key extends EndpointKey>(
  key: Key,
  ...[brought]: unknown extends InAddress<Key> ? [] : [brought: InAddress<Key>]
): string {
  const { parameters = {}, query = {} } = (brought ?? {}) as {
    parameters?: Readonly<Record<string, string>>;
    query?: Readonly<Record<string, unknown>>;
  };
  const [, path] = key.split(' ') as [string, string];
  const filled = path.replaceAll(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(parameters[name]!));
  const asked = Object.entries(query).flatMap(([name, value]) =>
    value === undefined ? [] : `${encodeURIComponent(name)}=${encodeURIComponent(String(value))}`,
  );
  return `/api${filled}${asked.length > 0 ? `?${asked.join('&')}` : ''}`;
}
