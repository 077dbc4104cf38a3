import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { withInnerBlocks, type Block, type Inline } from './layout';
import { splitPlaceholders } from './placeholders';

/** Words of a block as its author wrote them: running text, or a text with `=[formula]` placeholders. */
export type Piece = { content: Inline[] } | { text: string };

/** Running text of a translation: its values are named by their ids alone, their formulas stay with the source. */
export type WordingInline = Exclude<Inline, { type: 'value' }> | { type: 'value'; attrs: { id: string } };

/**
 * A piece in the words of an edition. Placeholders in `text` are numbers: `=[1]` is the source's first one. `of` is
 * the digest of the source it was translated from.
 */
export type Wording = { of: string } & ({ content: WordingInline[] } | { text: string });

/** The translations of an edition, by piece: a block's id, or its id and a part of it after a dot. */
export type Words = Readonly<Record<string, Wording>>;

/** Twelve digits that are others when the source text is: SHA-256, shortened. */
export function wordingDigest(piece: Piece): string {
  const source = 'text' in piece ? piece.text : JSON.stringify(piece.content.map(comparable));
  return bytesToHex(sha256(utf8ToBytes(source))).slice(0, 12);
}

/** What of an inline a translator sees; how its value is computed or looks is not of the text. */
function comparable(inline: Inline): unknown {
  if (inline.type === 'text') return inline.text;
  return inline.type === 'value' ? [inline.attrs.id] : [inline.type];
}

/** Whether there are words in a piece at all, beside its values. */
export function hasWords(piece: Piece): boolean {
  const texts =
    'text' in piece
      ? splitPlaceholders(piece.text).flatMap((part) => (part.kind === 'text' ? [part.text] : []))
      : piece.content.flatMap((inline) => (inline.type === 'text' ? [inline.text] : []));
  return texts.some((words) => /\p{L}/u.test(words));
}

/** A piece in other words, with the formulas of its source. Values that the source does not have are left out. */
export function reworded(source: Piece, wording: Wording): Piece {
  if ('text' in source) {
    if (!('text' in wording)) return source;
    const formulas = splitPlaceholders(source.text).flatMap((part) => (part.kind === 'formula' ? [part.formula] : []));
    const parts = splitPlaceholders(wording.text).map((part) => {
      if (part.kind === 'text') return part.text;
      const formula = formulas[Number(part.formula) - 1];
      return formula === undefined ? '' : `=[${formula}]`;
    });
    return { text: parts.join('') };
  }
  if (!('content' in wording)) return source;
  const values = new Map(source.content.flatMap((each) => (each.type === 'value' ? [[each.attrs.id, each]] : [])));
  return {
    content: wording.content.flatMap((inline): Inline[] => {
      if (inline.type !== 'value') return [inline];
      const value = values.get(inline.attrs.id);
      return value ? [value] : [];
    }),
  };
}

/** What to put in place of a piece of words. */
export type PieceChange = <Kind extends Piece>(key: string, piece: Kind, block: string) => Kind;

/** The same blocks with every piece of their words changed. */
export function mapPieces(blocks: readonly Block[], change: PieceChange): Block[] {
  return blocks.map((block) => withInnerBlocks(mapOwnPieces(block, change), (inner) => mapPieces(inner, change)));
}

function mapOwnPieces(block: Block, change: PieceChange): Block {
  const { id } = block.attrs;
  const content = (key: string, inlines: Inline[]) => change(key, { content: inlines }, id).content;
  const text = (part: string, words: string) => change(`${id}.${part}`, { text: words }, id).text;
  switch (block.type) {
    case 'paragraph':
    case 'heading':
      return { ...block, content: content(id, block.content) };
    case 'bulletList':
    case 'numberedList':
      return { ...block, content: block.content.map((item, at) => content(`${id}.${at + 1}`, item)) };
    case 'gridTable': {
      const rows = block.rows.map((row, y) => row.map((cell, x) => content(`${id}.${y + 1}.${x + 1}`, cell)));
      return { ...block, rows };
    }
    case 'lineTable': {
      const { columns, empty, groups } = block.attrs;
      return {
        ...block,
        attrs: {
          ...block.attrs,
          columns: columns.map((column) => ({ ...column, heading: text(column.id, column.heading) })),
          ...(empty !== undefined && { empty: text('empty', empty) }),
          ...(groups && {
            groups: {
              ...groups,
              heading: text('group', groups.heading),
              ...(groups.subtotal && { subtotal: { ...groups.subtotal, label: text('subtotal', groups.subtotal.label) } }), // prettier-ignore
            },
          }),
        },
      };
    }
    case 'totals':
      return {
        ...block,
        attrs: { ...block.attrs, rows: block.attrs.rows.map((row) => ({ ...row, label: text(row.id, row.label) })) },
      };
    case 'signature': {
      const { label, date } = block.attrs;
      return { ...block, attrs: { ...block.attrs, label: text('label', label), date: text('date', date) } };
    }
    default:
      return block;
  }
}
