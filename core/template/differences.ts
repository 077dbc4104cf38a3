import { canonicalJson } from '../shape/canonical';
import { piecesOf, type Piece } from './compare';
import type { Template } from './template';

/** One thing about a piece that is another one in two templates. */
export interface Detail {
  /** "formula", "column “Price”: condition". */
  what: string;
  /** As it was and as it is, for reading; absent where there was or is none. */
  before?: string;
  after?: string;
}

/** A piece of a template that was added, deleted or changed. */
export interface Difference {
  /** Figures, page blocks, editions. */
  part: string;
  kind: 'added' | 'changed' | 'deleted';
  name: string;
  /** The block on the page, where it is one. */
  block?: string;
  details: Detail[];
}

/** What differs between two templates, piece by piece and in words; nothing where they print the same. */
export function templateDifferences(before: Template, after: Template): Difference[] {
  const [old, young] = [piecesOf(before), piecesOf(after)];
  const found = Object.keys(young).flatMap((part) => partDifferences(part, old[part] ?? [], young[part]!));
  const whole = (template: Template) => canonicalJson({ ...template, $schema: undefined });
  if (found.length > 0 || whole(before) === whole(after)) return found;
  return [{ part: 'Template', kind: 'changed', name: 'order of its parts', details: [] }];
}

function partDifferences(part: string, before: readonly Piece[], after: readonly Piece[]): Difference[] {
  const [old, young] = [byKey(before), byKey(after)];
  const of = (kind: Difference['kind'], { name, key, isBlock }: Piece, details: Detail[]): Difference => ({
    part,
    kind,
    name,
    ...(isBlock && { block: key }),
    details,
  });
  const others = after.flatMap((piece): Difference[] => {
    const known = old.get(piece.key);
    if (!known) return [of('added', piece, detailsOf(undefined, piece.content))];
    if (canonicalJson(known.content) === canonicalJson(piece.content)) return [];
    return [of('changed', piece, detailsOf(known.content, piece.content))];
  });
  const gone = before.filter(({ key }) => !young.has(key));
  return [...others, ...gone.map((piece) => of('deleted', piece, detailsOf(piece.content, undefined)))];
}

const byKey = (pieces: readonly Piece[]) => new Map(pieces.map((piece) => [piece.key, piece]));

/** What people call what a piece has, where its own name is no word for it. */
const WORDS: Readonly<Record<string, string>> = {
  when: 'condition', list: 'list', filter: 'only those with', detail: 'second line', format: 'look', total: 'adds up to', align: 'alignment',
  columns: 'column', rows: 'row', note: 'margin words', mayBeBlank: 'may be blank', each: 'for each of', carry: 'carried sum',
  startsPage: 'each on a page', counter: 'numbers the rows', groups: 'groups', subtotal: 'sum of a group', by: 'order', words: 'words',
  instead: 'blocks of its own', without: 'leaves out', houseStyle: 'house style', fileName: 'file name', internal: 'never printed',
}; // prettier-ignore

/** Keys that say nothing to people. */
const SILENT: ReadonlySet<string> = new Set(['id', 'name', 'earlierNote']);

function detailsOf(before: unknown, after: unknown): Detail[] {
  const [old, young] = [leavesOf(before), leavesOf(after)];
  const all = [...new Set([...young.keys(), ...old.keys()])];
  return all.flatMap((what) => {
    const [was, is] = [old.get(what), young.get(what)];
    if (was === is) return [];
    return [{ what, ...(was !== undefined && { before: was }), ...(is !== undefined && { after: is }) }];
  });
}

/** Everything that a piece says, by what people call it. */
function leavesOf(content: unknown): Map<string, string> {
  const found = new Map<string, string>();
  const put = (path: readonly string[], value: string) => found.set(path.join(': ') || 'value', value);
  const visit = (value: unknown, path: readonly string[]): void => {
    if (value === undefined || value === null) return;
    if (typeof value !== 'object')
      return void put(path, typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value as string));
    if (Array.isArray(value)) return visitList(value, path);
    const { type, attrs, content: inside, ...rest } = value as { type?: string; attrs?: object; content?: unknown[] };
    if (attrs !== undefined || inside !== undefined) {
      visitFields(attrs ?? {}, path);
      if (inside?.length) visitInside(inside, path);
      return;
    }
    visitFields({ ...(typeof type === 'string' && { type }), ...rest }, path);
  };
  const visitFields = (fields: object, path: readonly string[]): void => {
    for (const [key, value] of Object.entries(fields)) if (!SILENT.has(key)) visit(value, [...path, WORDS[key] ?? key]);
  };
  const visitList = (items: readonly unknown[], path: readonly string[]): void => {
    if (items.every((item) => typeof item !== 'object')) return void (items.length > 0 && put(path, items.join(', ')));
    const last = path.at(-1) ?? 'part';
    const named = items.map((item, at) => nameOf(item) ?? String(at + 1));
    items.forEach((item, at) => visit(item, [...path.slice(0, -1), `${last} “${named[at]}”`]));
    put([...path.slice(0, -1), `order of the ${last}s`], named.join(', '));
  };
  /** Running text is read as one: each value by its formula. Of blocks, which are pieces of their own, the order is known. */
  const visitInside = (inside: readonly unknown[], path: readonly string[]): void => {
    const text = inside.map(wordsIn).join('');
    if (text !== '') put([...path, 'words'], text);
    else put([...path, 'blocks in it'], inside.map((each) => JSON.stringify(each)).join());
  };
  visit(content, []);
  return found;
}

/** What people know one of several by. */
function nameOf(item: unknown): string | undefined {
  const { heading, label, name, title, id } = item as Record<string, unknown>;
  return [heading, label, name, title, id].find((each): each is string => typeof each === 'string' && each !== '');
}

function wordsIn(node: unknown): string {
  const {
    type,
    text,
    attrs,
    content = [],
  } = node as {
    type?: string;
    text?: string;
    attrs?: { formula?: string };
    content?: unknown[];
  };
  if (text !== undefined) return text;
  if (type === 'value') return `=[${attrs?.formula ?? ''}]`;
  if (type === 'hardBreak') return '\n';
  return content.map(wordsIn).join(' ');
}
