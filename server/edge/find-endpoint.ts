import type { Endpoint } from '../../core/contract/endpoint';
import { Problem } from '../problem';

/** What the first line of a request asks for. */
export interface Found {
  key: string;
  endpoint: Endpoint;
  /** Texts, decoded once. A name that stands twice in the query has a list. */
  parameters: Record<string, string>;
  query: Record<string, string | string[]>;
}

interface Route {
  method: string;
  key: string;
  endpoint: Endpoint;
  segments: readonly string[];
}

/**
 * Finds the endpoint of a request by its address as it was sent: cut into its parts first and decoded after, so that no
 * `%2F` or `%3F` inside of a part leads to another endpoint. Throws Problem for what leads nowhere, URIError for a `%` that is
 * none.
 */
export function endpointFinder(
  contract: Readonly<Record<string, Endpoint>>,
  base: string,
): (method: string, url: string) => Found {
  const routes = Object.entries(contract).map(([key, endpoint]): Route => {
    const [method, path] = key.split(' ') as [string, string];
    return { method, key, endpoint, segments: path.split('/') };
  });
  // What is named stands before what is open: `/people/rules` before `/people/{id}`.
  routes.sort((one, other) => openParts(one) - openParts(other));
  return (method, url) => {
    const end = url.indexOf('?');
    const path = end === -1 ? url : url.slice(0, end);
    const segments = path.startsWith(`${base}/`) ? path.slice(base.length).split('/') : [];
    const fitting = routes.filter((route) => fits(route, segments));
    const asked = method === 'HEAD' ? 'GET' : method;
    const found = fitting.find((route) => route.method === asked);
    if (!found) throw fitting.length > 0 ? notDoneHere() : nothingHere();
    return {
      key: found.key,
      endpoint: found.endpoint,
      parameters: parametersOf(found, segments),
      query: queryOf(end === -1 ? '' : url.slice(end + 1)),
    };
  };
}

const isOpen = (segment: string) => segment.startsWith('{');
const openParts = ({ segments }: Route) => segments.filter(isOpen).length;

const fits = (route: Route, segments: readonly string[]) =>
  route.segments.length === segments.length &&
  route.segments.every((segment, at) => (isOpen(segment) ? segments[at] !== '' : segment === segments[at]));

function parametersOf(route: Route, segments: readonly string[]): Record<string, string> {
  const open = route.segments.flatMap((segment, at): [string, string][] =>
    isOpen(segment) ? [[segment.slice(1, -1), decodeURIComponent(segments[at]!)]] : [],
  );
  return Object.fromEntries(open);
}

/** The names and values of a query (WHATWG URL, 5.1), which has to be well encoded. */
function queryOf(text: string): Record<string, string | string[]> {
  decodeURIComponent(text);
  const query = new Map<string, string | string[]>();
  for (const [name, value] of new URLSearchParams(text)) {
    const before = query.get(name);
    query.set(name, before === undefined ? value : [before, value].flat());
  }
  return Object.fromEntries(query);
}

const nothingHere = () =>
  new Problem(404, 'There is nothing at this address', 'Look how it is written. Nothing was changed.');
const notDoneHere = () =>
  new Problem(405, 'This cannot be done at this address', 'Look how it is asked for. Nothing was changed.');
