import type { Row } from '../../formula/row';
import { byType, listOf } from '../../shape/shape';
import type { FormulaChanges } from '../changes';
import type { Composer } from '../composer';
import type { Run } from '../composed';
import { documentTitle } from './document-title';
import { hardBreak } from './hard-break';
import type { InlineKind } from './kind';
import { pageCount } from './page-count';
import { pageNumber } from './page-number';
import { text } from './text';
import { value } from './value';

/** Every kind of inline content, by its type. */
const INLINES = { text, value, hardBreak, pageNumber, pageCount, documentTitle };

type Kinds = typeof INLINES;
type InlineType = keyof Kinds;

/** A run of text, a value or a page field, inside a paragraph. */
export type Inline = {
  [Type in InlineType]: Kinds[Type] extends InlineKind<infer Each, infer _> ? Each : never;
}[InlineType];

/** Running text of a translation. */
export type WordingInline = {
  [Type in InlineType]: Kinds[Type] extends InlineKind<infer _, infer Each> ? Each : never;
}[InlineType];

const kinds: Readonly<Record<string, InlineKind<Inline, WordingInline>>> = INLINES as never;
const inline = byType<Inline>('inline', () =>
  Object.fromEntries(Object.entries(kinds).map(([type, kind]) => [type, kind.shape])),
);
const wordingInline = byType<WordingInline>('wordingInline', () =>
  Object.fromEntries(Object.entries(kinds).map(([type, kind]) => [type, kind.wordingShape])),
);

const MOST_INLINES = 2_000;
export const inlineShape = inline;
export const wordingInlines = () => listOf(wordingInline, MOST_INLINES);

export const mapInlineFormulas = (
  inlines: readonly Inline[] | undefined,
  change: FormulaChanges,
): { content?: Inline[] } =>
  inlines ? { content: inlines.map((each) => kinds[each.type]!.mapFormulas(each, change)) } : {};

export const composeInline = (each: Inline, composer: Composer, block: string, row?: Row): Run[] =>
  kinds[each.type]!.compose(each, composer, block, row);

/** What of running text a translator sees. */
export const seenText = (inlines: readonly Inline[]): unknown[] => inlines.map((each) => kinds[each.type]!.seen(each));

/** How many letters of a text it is called by. */
const CALLED_BY = 32;
/** What people call a block of running text: "the paragraph “Dear Sir”"; "a paragraph" where it has no words of its own. */
export function calledByWords(kind: string, content: readonly Inline[] = []): string {
  const words = content.flatMap((inline) => (inline.type === 'text' ? [inline.text] : ['…']));
  const text = words.join('').replace(/\s+/g, ' ').trim();
  if (text.replaceAll('…', '').trim() === '') return `a ${kind}`;
  return `the ${kind} “${text.length > CALLED_BY ? `${text.slice(0, CALLED_BY).trimEnd()}…` : text}”`;
}
