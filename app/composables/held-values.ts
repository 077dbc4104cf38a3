import type { Answer } from './api';

export type Held = Answer<'GET /records/{type}/held'>;

const asked = new Map<string, Promise<Held>>();

/** The values that records hold under a path, with their counts; asked for once. Nothing where they do not come. */
export function heldValuesOf(type: string, path: string): Promise<Held> {
  const key = `${type} ${path}`;
  const known = asked.get(key);
  if (known) return known;
  const answer = api('GET /records/{type}/held', { parameters: { type }, query: { path } }).catch(() => {
    asked.delete(key);
    return { among: 0, values: [] };
  });
  asked.set(key, answer);
  return answer;
}
