import { distance } from 'fastest-levenshtein';

/** The real name that a mistyped one is most likely meant to be; undefined where none is close. */
export function nearestName(typed: string, names: Iterable<string>): string | undefined {
  const plain = typed.toLowerCase().replaceAll(/[_\s]/g, '');
  const furthest = Math.max(1, Math.floor(plain.length * 0.4));
  let best: { name: string; away: number } | undefined;
  for (const name of names) {
    const candidate = name.toLowerCase().replaceAll(/[_\s]/g, '');
    const letters = distance(plain, candidate);
    // Of two that are equally far, the one that begins alike: people mistype the middle of a word.
    const away = letters - commonStart(plain, candidate) / 1_000;
    if (letters <= furthest && (!best || away < best.away)) best = { name, away };
  }
  return best?.name;
}

function commonStart(one: string, other: string): number {
  let at = 0;
  while (at < one.length && one[at] === other[at]) at++;
  return at;
}
