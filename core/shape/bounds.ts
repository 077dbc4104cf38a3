/** Bounds of data from outside, looked at before anything else is: no check may cost much for what is refused anyway. */

/** How large JSON from outside may be. */
export interface Bounds {
  /** Values in all, and levels of objects and lists inside of each other. */
  values: number;
  depth: number;
  /** Items of one list, and characters of one text. */
  items: number;
  text: number;
}

/** Reads JSON within bounds. Gives the data, or why it is refused, in a sentence that begins with `what`: "The file". */
export function boundedJson(source: string, what: string, bounds: Bounds): { data: unknown } | { refused: string } {
  let data: unknown;
  try {
    data = JSON.parse(source.replace(/^\uFEFF/, ''));
  } catch (problem) {
    return { refused: `${what} is not JSON${placeOf(problem, source)}.` };
  }
  const refused = outOfBounds(data, bounds);
  return refused === undefined ? { data } : { refused: `${what} ${refused}` };
}

/** Where the reading stopped, by line and column, where the engine tells. */
function placeOf(problem: unknown, source: string): string {
  const position = /position (\d+)/.exec(String(problem))?.[1];
  if (position === undefined) return '';
  const before = source.slice(0, Number(position)).split('\n');
  return `: look at line ${before.length}, column ${before.at(-1)!.length + 1}`;
}

/** Why data is refused, as the end of a sentence; undefined if it is within its bounds. */
export function outOfBounds(data: unknown, { values, depth, items, text }: Bounds): string | undefined {
  let count = 0;
  let level: unknown[] = [data];
  for (let deep = 0; level.length > 0; deep++) {
    if (deep > depth) return `is nested more than ${depth} levels deep.`;
    const next: unknown[] = [];
    for (const value of level) {
      if (++count > values) return `holds more than ${values.toLocaleString('en')} values.`;
      if (typeof value === 'string') {
        const fault = textFault(value, text);
        if (fault) return fault;
      } else if (typeof value === 'number') {
        if (!Number.isFinite(value)) return 'holds a number that is too great.';
      } else if (Array.isArray(value)) {
        if (value.length > items) return `has a list of ${value.length.toLocaleString('en')}; no list may be longer than ${items.toLocaleString('en')}.`; // prettier-ignore
        for (const item of value) next.push(item);
      } else if (typeof value === 'object' && value !== null) {
        for (const [key, inner] of Object.entries(value)) {
          const fault = key === '__proto__' ? 'has a property “__proto__”, which is no name.' : textFault(key, 200);
          if (fault) return fault;
          next.push(inner);
        }
      }
    }
    if (count + next.length > values) return `holds more than ${values.toLocaleString('en')} values.`;
    level = next;
  }
  return undefined;
}

/** What no text of people has: NUL, and half of a surrogate pair (RFC 7493, 2.1). */
function textFault(text: string, longest: number): string | undefined {
  if (text.length > longest) return `has a text of more than ${longest.toLocaleString('en')} characters.`;
  return /\u0000|\p{Surrogate}/u.test(text) ? 'has a text with a character that is none (NUL, or half of a pair). Write it anew.' : undefined; // prettier-ignore
}
