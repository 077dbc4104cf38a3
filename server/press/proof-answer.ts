import { LRUCache } from 'lru-cache';
import type { Contract } from '../../core/contract/contract';
import type { AnswerOf, QueryOf, Served } from '../../core/contract/endpoint';
import type { Composition } from '../../core/production/composition';
import { sectionNotes } from '../../core/production/composed-blocks';
import { ASK, askField } from '../../core/template/asks';
import { memberPath } from '../../core/record/value-path';
import type { FieldAt } from '../../core/record/field-at';
import { pageContents } from '../../core/production/page-contents';
import type { Run } from '../../core/template/composed';
import type { ProofPages } from '../../render/typst/typesetter';
import { digestOf } from '../digest';

type Answered = AnswerOf<Contract['POST /productions']>;
/** What a proof is answered with. */
export type ProofAnswer = Served<Omit<Answered, 'pages'>> & Pick<Answered, 'pages'>;
export type PagesAnswer = AnswerOf<Contract['GET /productions/{id}/pages']>;
export type Span = QueryOf<Contract['GET /productions/{id}/pages']>;
/** What is known of it before it is composed. */
export type ProofHead = Pick<
  ProofAnswer,
  | 'id'
  | 'revision'
  | 'changes'
  | 'choices'
  | 'issueDates'
  | 'revises'
  | 'template'
  | 'record'
  | 'issueDate'
  | 'editions'
>;
export type DraftProofAnswer = Served<AnswerOf<Contract['POST /templates/{id}/draft/proof']>>;
/** The same of a draft, which names no production. */
export type DraftHead = Pick<DraftProofAnswer, 'record' | 'issueDate' | 'editions' | 'houseStyle'>;
/** What follows from the composition and its pages, with every drawing. */
export type ProofContent = Omit<ProofAnswer, keyof ProofHead>;

/** Which drawings go with an answer. */
export interface Sent {
  /** Digests of those that are at hand where it goes to: they stay. */
  has: readonly string[];
  /** Numbers of the pages that are looked at; the others are asked for when they are. */
  near: readonly number[] | 'all';
}

/** Everything that a proof can be asked for, with what is on each page. `given`: paths of values that were given for this document. */
export function proofContent(
  composition: Composition,
  { glyphs, pages, pageSize }: ProofPages,
  given: readonly string[],
  field: (path: string) => FieldAt | undefined,
): ProofContent {
  const {
    findings,
    figures,
    bridge,
    values,
    fileName,
    title,
    used,
    leftOut,
    proved,
    currency,
    edition,
    plan,
    annexes,
    steps,
    answers = [],
  } = composition;
  const contents = pageContents(pages);
  return {
    sections: sectionNotes(composition.document.body),
    findings,
    figures,
    bridge,
    values: shownValues(values, composition.document),
    fileName,
    title,
    read: Object.keys(used).length,
    leftOut,
    afterFiling: steps.flatMap((step) => ('skipped' in step ? [] : step.words)),
    changed: composition.changed,
    givenNotes: composition.givenNotes ?? {},
    asks: answers.map(({ ask, given: said }) => ({
      path: memberPath(ASK, ask.name),
      given: said,
      optional: ask.optional ?? false,
    })),
    fields: Object.fromEntries([
      ...answers.map(({ ask, value }) => [memberPath(ASK, ask.name), { field: askField(ask), value }] as const),
      ...[...findings.flatMap(({ path }) => path ?? []), ...given].flatMap((path) => {
        const found = field(path);
        if (!found) return [];
        const { type, id, version } = found.record;
        return [[path, { field: found.field, value: found.value, record: { type, id, version } }] as const];
      }),
    ]),
    proved,
    currency,
    edition,
    plan,
    annexes,
    pages: {
      glyphs: drawn(glyphs),
      pages: pages.map((page, index) => ({ ...drawn(page), ...contents[index]! })),
      pageSize,
    },
  };
}

/** The last drawings with their names: what is typed changes one page of many. */
const lastDrawn = new LRUCache<string, { digest: string; drawing: string }>({ max: 24 });
/** A drawing with its name. */
function drawn(drawing: string): { digest: string; drawing: string } {
  const known = lastDrawn.get(drawing);
  if (known) return known;
  const named = { digest: digestOf(drawing), drawing };
  lastDrawn.set(drawing, named);
  return named;
}

/** The answer, with the drawings that are wanted where it goes to. */
export function proofAnswer<Head extends ProofHead | DraftHead>(
  head: Head,
  content: ProofContent,
  { has, near }: Sent,
): Head & ProofContent {
  const known = new Set(has);
  const sent = <Part extends { digest: string; drawing?: string }>(part: Part, isNear = true): Part =>
    isNear && !known.has(part.digest) ? part : { ...part, drawing: undefined };
  const { glyphs, pages, pageSize } = content.pages;
  return {
    ...head,
    ...content,
    pages: {
      glyphs: sent(glyphs),
      pages: pages.map((page, index) => sent(page, near === 'all' || near.includes(index + 1))),
      pageSize,
    },
  };
}

/** Some pages of a proof, after their first `skip`. */
export const pagesAnswer = ({ pages: { pages } }: ProofContent, { skip, top }: Span): PagesAnswer => ({
  pages: pages.slice(skip, skip + top).map(({ digest, drawing }) => ({ digest, drawing: drawing! })),
});

/** Values with their texts as they are printed, in whatever runs they are. */
function shownValues(values: Composition['values'], { header, body }: Composition['document']): ProofAnswer['values'] {
  const texts = new Map<string, string>();
  const visit = (part: unknown): void => {
    if (Array.isArray(part)) return part.forEach(visit);
    if (typeof part !== 'object' || part === null) return;
    const { value, text } = part as Partial<Extract<Run, { kind: 'text' }>>;
    // A value on several lines is one of several runs.
    if (value !== undefined && text !== undefined)
      texts.set(value, texts.has(value) ? `${texts.get(value)}, ${text}` : text);
    else Object.values(part).forEach(visit);
  };
  visit([header, body]);
  return Object.fromEntries(Object.entries(values).map(([id, each]) => [id, { ...each, text: texts.get(id) ?? '' }]));
}
