import { visit } from 'jsonc-parser';

/** Bounds of data from outside, looked at before anything else is: no check may cost much for what is refused anyway. */

/** How large JSON from outside may be. */
export interface Bounds {
  /** Values in all, objects among them, and levels of objects and lists inside of each other. */
  values: number;
  objects: number;
  depth: number;
  /** Items of one list, and characters of one text. */
  items: number;
  text: number;
  /** Characters of a property's name. */
  name: number;
}

/** Reads JSON within bounds. Gives the data, or why it is refused, in a sentence that begins with `what`: "The file". */
export function boundedJson(source: string, what: string, bounds: Bounds): { data: unknown } | { refused: string } {
  const unparsed = outOfBoundsAsText(source, bounds);
  if (unparsed !== undefined) return { refused: `${what} ${unparsed}` };
  let data: unknown;
  try {
    data = JSON.parse(source.replace(/^\uFEFF/, ''));
  } catch {
    return { refused: `${what} is not JSON${placeOfMistake(source)}.` };
  }
  const refused = outOfBounds(data, bounds);
  return refused === undefined ? { data } : { refused: `${what} ${refused}` };
}

/** Characters of a text that is looked through for its mistake; longer ones are no work of a person's hands. */
const LONGEST_LOOKED_THROUGH = 4_000_000;

/** Where JSON goes wrong, by line and column: the engine that reads it fast tells that for some mistakes only. */
function placeOfMistake(source: string): string {
  if (source.length > LONGEST_LOOKED_THROUGH) return '';
  let place = '';
  const tell = (line: number, column: number) => (place ||= `: look at line ${line + 1}, column ${column + 1}`);
  try {
    visit(source, { onError: (_error, _at, _length, line, column) => tell(line, column) }, { disallowComments: true });
  } catch (problem) {
    // Brackets too deep to follow; whoever wrote those needs no place.
    if (!(problem instanceof RangeError)) throw problem;
  }
  return place;
}

/**
 * Why JSON is refused before it is parsed, as the end of a sentence: parsing alone can take a hundred times the memory of the
 * text. Counts what the bounds are surely passed by; undefined says nothing yet.
 */
function outOfBoundsAsText(source: string, bounds: Bounds): string | undefined {
  let [depth, commas, lists, objects] = [0, 0, 0, 0];
  for (let at = 0; at < source.length; at++) {
    switch (source[at]) {
      case '"':
        at = endOfText(source, at);
        break;
      case ',':
        if (++commas > bounds.values) return tooMany(bounds);
        break;
      case '[':
        if (++lists > bounds.values + 1) return tooMany(bounds);
        depth++;
        break;
      case '{':
        if (++objects > bounds.objects) return tooManyParts(bounds);
        depth++;
        break;
      case ']':
      case '}':
        depth--;
        break;
    }
    // What is deepest may hold nothing, and then counts for no level.
    if (depth > bounds.depth + 1) return tooDeep(bounds);
  }
  return undefined;
}

/** Where a text of JSON that begins at a quotation mark ends; the end of all where it does not. */
function endOfText(source: string, start: number): number {
  for (let end = source.indexOf('"', start + 1); end !== -1; end = source.indexOf('"', end + 1)) {
    let before = end;
    while (source[before - 1] === '\\') before--;
    if ((end - before) % 2 === 0) return end;
  }
  return source.length;
}

const tooDeep = ({ depth }: Bounds) => `is nested more than ${depth} levels deep.`;
const tooMany = ({ values }: Bounds) => `holds more than ${shown(values)} values.`;
const tooManyParts = ({ objects }: Bounds) => `has more than ${shown(objects)} parts.`;

/** Why data is refused, as the end of a sentence; undefined if it is within its bounds. */
export function outOfBounds(data: unknown, bounds: Bounds): string | undefined {
  const left = { values: bounds.values, objects: bounds.objects };
  let level: unknown[] = [data];
  for (let deep = 0; level.length > 0; deep++) {
    if (deep > bounds.depth) return tooDeep(bounds);
    const next: unknown[] = [];
    for (const value of level) {
      const refused = refusedHere(value, bounds, left);
      if (refused !== undefined) return refused;
      if (Array.isArray(value)) for (const item of value) next.push(item);
      else if (isObject(value)) for (const key of Object.keys(value)) next.push(value[key]);
    }
    level = next;
  }
  return undefined;
}

/** Why one value is refused, whatever it holds. What it holds is counted first, so that little is done for what is too much. */
function refusedHere(value: unknown, bounds: Bounds, left: { values: number; objects: number }): string | undefined {
  const { items, text, name } = bounds;
  if (typeof value === 'string') return textFault(value, text);
  if (typeof value === 'number') return Number.isFinite(value) ? undefined : 'holds a number that is too great.';
  if (Array.isArray(value)) {
    if (value.length > items)
      return `has a list of ${shown(value.length)}; no list may be longer than ${shown(items)}.`;
    left.values -= value.length;
  } else if (isObject(value)) {
    const keys = Object.keys(value);
    left.values -= keys.length;
    if (--left.objects < 0) return tooManyParts(bounds);
    if (left.values >= 0) {
      for (const key of keys) {
        const fault = key === '__proto__' ? 'has a property “__proto__”, which is no name.' : textFault(key, name);
        if (fault !== undefined) return fault;
      }
    }
  }
  return left.values < 0 ? tooMany(bounds) : undefined;
}

const shown = (count: number) => count.toLocaleString('en');
const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null;

/** NUL, and half of a surrogate pair: what no text of people has (RFC 7493, 2.1). */
const NO_TEXT = /\0|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

function textFault(text: string, longest: number): string | undefined {
  if (text.length > longest) return `has a text of more than ${shown(longest)} characters.`;
  return NO_TEXT.test(text)
    ? 'has a text with a character that is none (NUL, or half of a pair). Write it anew.'
    : undefined;
}
