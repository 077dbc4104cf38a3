import { canonicalJson } from '../shape/canonical';
import { everyBlock, ownBlockLists } from './walk';
import { withInner, wordsFor, type Block } from './blocks';
import type { Template } from './template';

/** What differs between two templates in one of their parts, by what people call each piece. */
export interface TemplateChange {
  /** Figures, blocks, editions. */
  part: string;
  added: string[];
  changed: string[];
  deleted: string[];
}

/** A piece of a template: what it is known by, what people call it, and what it consists of. */
export interface Piece {
  key: string;
  name: string;
  content: unknown;
  /** Whether its key is the id of a block. */
  isBlock?: boolean;
}

/** What would become of a template by putting another in its place; nothing where both are the same. */
export function templateChanges(before: Template, after: Template): TemplateChange[] {
  const changes = Object.entries(PARTS).flatMap(([part, piecesOf]) => {
    const change = pieceChanges(piecesOf(before), piecesOf(after));
    return change.added.length + change.changed.length + change.deleted.length > 0 ? [{ part, ...change }] : [];
  });
  const whole = (template: Template) => canonicalJson({ ...template, $schema: undefined });
  if (changes.length > 0 || whole(before) === whole(after)) return changes;
  return [{ part: 'Template', added: [], changed: ['order of its parts'], deleted: [] }];
}

/** The pieces of a template, by their parts. */
export const piecesOf = (template: Template): Record<string, Piece[]> =>
  Object.fromEntries(Object.entries(PARTS).map(([part, pieces]) => [part, pieces(template)]));

const PARTS: Readonly<Record<string, (template: Template) => Piece[]>> = {
  Template: (template) => settings(template),
  Figures: ({ sheet }) => [...labelled('document', sheet.document), ...labelled('line', sheet.perLine)],
  Lists: ({ sheet }) => labelled('list', sheet.lists),
  Tables: ({ sheet }) => labelled('table', sheet.tables ?? []),
  'Page blocks': (template) => ownBlockLists(template).flatMap((blocks) => everyBlock(blocks).map(pieceOfBlock)),
  Editions: ({ editions }) =>
    editions.map(({ id, label, instead, ...edition }) => ({
      key: id,
      name: label,
      // Blocks in place of others are among the blocks of the pages already.
      content: { label, ...edition, instead: Object.keys(instead ?? {}) },
    })),
  Asks: ({ asks = [] }) => asks.map((ask) => ({ key: ask.name, name: ask.label, content: ask })),
  'Ways to file': ({ plans }) => plans.map((plan) => ({ key: plan.id, name: plan.label, content: plan })),
  Checks: ({ checks }) => checks.map((check) => ({ key: check.id, name: check.title, content: check })),
  'Joined PDFs': ({ annexes = [] }) => annexes.map((annex) => ({ key: annex.id, name: annex.label, content: annex })),
  Files: ({ files = {} }) =>
    Object.entries(files).map(([name, { sha256, mediaType }]) => ({ key: name, name, content: { sha256, mediaType } })),
};

/** What a template says of itself, in one piece each. */
function settings({
  name,
  kind,
  record,
  fits,
  stages,
  houseStyle,
  style,
  edition,
  sheet,
  layout,
  proofRecords,
  sample,
}: Template): Piece[] {
  const { currency, rounding, sums } = sheet;
  const all = {
    name, kind, 'type of record': record, 'the records it is for': fits, 'usual stages': stages, 'house style': houseStyle, 'own style': style, 'choice of edition': edition, currency, rounding,
    'totals that must match': sums, 'page set-up': layout.page, 'proof records': proofRecords, 'sample record': sample,
  }; // prettier-ignore
  return Object.entries(all).flatMap(([key, content]) => (content === undefined ? [] : [{ key, name: key, content }]));
}

const labelled = (kind: string, pieces: readonly { name: string; label: string }[]): Piece[] =>
  pieces.map((piece) => ({ key: `${kind} ${piece.name}`, name: piece.label, content: piece }));

/** A block by itself: of blocks that it holds, which are pieces of their own, it knows the order. */
function pieceOfBlock(block: Block): Piece {
  const content = withInner(block, (inner) => inner.map(({ attrs: { id } }) => ({ attrs: { id } }) as Block));
  return { key: block.attrs.id, name: wordsFor(block), content, isBlock: true };
}

function pieceChanges(before: readonly Piece[], after: readonly Piece[]): Omit<TemplateChange, 'part'> {
  const [old, young] = [byKey(before), byKey(after)];
  const names = (pieces: readonly Piece[]) => pieces.map(({ name }) => name);
  return {
    added: names(after.filter(({ key }) => !old.has(key))),
    changed: names(
      after.filter(({ key, content }) => old.has(key) && canonicalJson(old.get(key)) !== canonicalJson(content)),
    ),
    deleted: names(before.filter(({ key }) => !young.has(key))),
  };
}

const byKey = (pieces: readonly Piece[]) => new Map(pieces.map(({ key, content }) => [key, content]));
