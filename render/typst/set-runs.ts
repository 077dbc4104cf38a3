import type { ComposedDocument, Run } from '../../core/template/composed';

type TextRun = Extract<Run, { kind: 'text' }>;

/** Room of a width in ems, as wide as some letters. */
export interface RoomRun {
  kind: 'room';
  text: string;
  ems: number;
}

/** Words that stand on one line. */
interface Whole {
  whole: string;
}

/**
 * A run as document.typ reads it: plain words as themselves, so that it has nothing to look up for most of a document. `pieces`
 * are a text that may be broken between any two of them; `parts` one with words that stay on one line; `turned` runs against the
 * direction of the page.
 */
type SetRun =
  | string
  | Whole
  | (Omit<TextRun, 'kind' | 'text'> & {
      text?: string;
      pieces?: string[];
      parts?: (string | Whole)[];
      turned?: boolean;
    })
  | Exclude<Run, { kind: 'text' }>
  | RoomRun;

/** A run that is known to have a line to itself. */
export type LineRun = Run & { onOneLine?: boolean };

/** How runs are set: on a proof, values can be clicked and links cannot. */
export interface RunSetting {
  direction: ComposedDocument['direction'];
  proof: boolean;
}

const RUN_KINDS = new Set(['text', 'break', 'pageNumber', 'pageCount']);

/** Whether something of a composed document is running text. */
export const isRuns = (value: unknown): value is (LineRun | RoomRun)[] =>
  Array.isArray(value) && RUN_KINDS.has((value[0] as Partial<Run> | undefined)?.kind ?? '');

/** Running text as document.typ reads it: a string where it is nothing but plain words. */
export function setRuns(runs: readonly (LineRun | RoomRun)[], setting: RunSetting): string | SetRun[] {
  const set: SetRun[] = [];
  for (const run of runs) {
    for (const next of run.kind === 'text' ? setText(run, setting) : [run]) {
      const last = set.at(-1);
      if (typeof next === 'string' && typeof last === 'string') set[set.length - 1] = last + next;
      else set.push(next);
    }
  }
  return set.length === 1 && typeof set[0] === 'string' ? set[0] : set;
}

const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefc]/;

/** Units that stay with their numbers. */
const UNITS = 'mm|cm|m|km|m²|m³|ha|ml|l|g|kg|t|W|kW|kWh|V|A|Hz|lx|°C|K|bar|Pa|kPa|ppm|%|‰|h|min|[A-Z]{3}';
const MONTH = String.raw`(?!\p{Lu}{2})\p{L}[\p{L}\p{M}]{2,}\.?`;
/** A number with its unit, a size in several numbers, or a date in words. */
const KEPT_WORDS = new RegExp(
  [
    String.raw`\p{Nd}[\p{Nd}.,]*(?: × \p{Nd}[\p{Nd}.,]*)*(?: (?:${UNITS})(?![\p{L}\p{M}\p{Nd}])| × \p{Nd}[\p{Nd}.,]*)`,
    String.raw`(?<!\p{Nd})\p{Nd}{1,2}\.? (?:de )?${MONTH} (?:de )?\p{Nd}{4}(?!\p{Nd})`,
    String.raw`${MONTH} \p{Nd}{1,2}, \p{Nd}{4}(?!\p{Nd})`,
  ].join('|'),
  'gu',
);
/** Whether a text has words that are kept on one line. */
export const hasKeptWords = (text: string): boolean => /\p{Nd}/u.test(text) && text.search(KEPT_WORDS) >= 0;

/** A text in parts, where dates, sizes or numbers with their units are in it; nothing otherwise. */
function partsOf(text: string): (string | Whole)[] | undefined {
  if (!/\p{Nd}/u.test(text)) return undefined;
  const parts: (string | Whole)[] = [];
  let from = 0;
  for (const { 0: whole, index } of text.matchAll(KEPT_WORDS)) {
    if (index > from) parts.push(text.slice(from, index));
    parts.push({ whole });
    from = index + whole.length;
  }
  if (from < text.length) parts.push(text.slice(from));
  return from > 0 ? parts : undefined;
}

function setText(
  { kind: _, text, value, link, onOneLine, ...look }: TextRun & LineRun,
  { direction, proof }: RunSetting,
): SetRun[] {
  // A value keeps its own direction among words that run the other way.
  const turned = value !== undefined && RIGHT_TO_LEFT.test(text) !== (direction === 'rtl');
  const run = {
    ...Object.fromEntries(Object.entries(look).filter(([, is]) => is)),
    ...(proof && value !== undefined && { value }),
    ...(!proof && link !== undefined && { link }),
    ...(turned && { turned }),
  };
  const pieces = piecesOf(text);
  if (pieces) return [{ ...run, pieces }];
  const parts = onOneLine ? undefined : partsOf(text);
  if (Object.keys(run).length === 0) return parts ?? [text];
  return [parts ? { ...run, parts } : { ...run, text }];
}

/** Longer runs without a space may be broken anywhere, rather than run out of their column. */
const UNBROKEN = /[^\s\u200b]{29,}/gu;
/** Where a text may be broken without a space. It is not set itself, since it would end up in what is copied from the page. */
const ZERO_SPACE = '\u200b';

/** A text with words that no column is wide enough for, or with places to break of its own, in pieces. */
function piecesOf(text: string): string[] | undefined {
  const long = text.length < 29 ? text : text.replace(UNBROKEN, (word) => graphemes(word).join(ZERO_SPACE));
  return long.includes(ZERO_SPACE) ? long.split(ZERO_SPACE) : undefined;
}

const segmenter = new Intl.Segmenter();
const graphemes = (word: string) => [...segmenter.segment(word)].map(({ segment }) => segment);
