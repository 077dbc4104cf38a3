import type { ComposedDocument, Run } from '../../core/template/composed';

type TextRun = Extract<Run, { kind: 'text' }>;

/**
 * A run as document.typ reads it: plain words as themselves, so that it has nothing to look up for most of a document. `pieces`
 * are a text that may be broken between any two of them; `turned` runs against the direction of the page.
 */
type SetRun =
  | string
  | (Omit<TextRun, 'kind' | 'text'> & { text?: string; pieces?: string[]; turned?: boolean })
  | Exclude<Run, { kind: 'text' }>;

/** How runs are set: on a proof, values can be clicked and links cannot. */
export interface RunSetting {
  direction: ComposedDocument['direction'];
  proof: boolean;
}

const RUN_KINDS = new Set(['text', 'break', 'pageNumber', 'pageCount']);

/** Whether something of a composed document is running text. */
export const isRuns = (value: unknown): value is Run[] =>
  Array.isArray(value) && RUN_KINDS.has((value[0] as Partial<Run> | undefined)?.kind ?? '');

/** Running text as document.typ reads it: a string where it is nothing but plain words. */
export function setRuns(runs: readonly Run[], setting: RunSetting): string | SetRun[] {
  const set: SetRun[] = [];
  for (const run of runs) {
    const next = run.kind === 'text' ? setText(run, setting) : run;
    const last = set.at(-1);
    if (typeof next === 'string' && typeof last === 'string') set[set.length - 1] = last + next;
    else set.push(next);
  }
  return set.length === 1 && typeof set[0] === 'string' ? set[0] : set;
}

const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufefc]/;

function setText({ kind: _, text, value, link, ...look }: TextRun, { direction, proof }: RunSetting): SetRun {
  // A value keeps its own direction among words that run the other way.
  const turned = value !== undefined && RIGHT_TO_LEFT.test(text) !== (direction === 'rtl');
  const pieces = piecesOf(text);
  const run = {
    ...Object.fromEntries(Object.entries(look).filter(([, is]) => is)),
    ...(proof && value !== undefined && { value }),
    ...(!proof && link !== undefined && { link }),
    ...(turned && { turned }),
  };
  if (pieces) return { ...run, pieces };
  return Object.keys(run).length === 0 ? text : { ...run, text };
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
