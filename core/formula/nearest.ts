import { distance } from 'fastest-levenshtein';

/** The real name that a mistyped one is most likely meant to be; undefined where none is close. */
export function nearestName(typed: string, names: Iterable<string>): string | undefined {
  const plain = typed.toLowerCase().replaceAll(/[_\s]/g, '');
  const furthest = Math.max(1, Math.floor(plain.length * 0.4));
  let best: { name: string; away: number } | undefined;
  for (const name of names) {
    const candidate = name.toLowerCase().replaceAll(/[_\s]/g, '');
    const away = distance(plain, candidate);
    if (away <= furthest && (!best || away < best.away)) best = { name, away };
  }
  return best?.name;
}
