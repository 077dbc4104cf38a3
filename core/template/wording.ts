import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { either, mapOf, placeholders, shape, text, type InferType } from '../shape/shape';
import { seenText, wordingInlines, type Inline } from './inlines';
import { splitPlaceholders } from './placeholders';

/** Words of a block as its author wrote them: running text, or a text with `=[formula]` placeholders. */
export type Piece = { content: Inline[] } | { text: string };

const digest = () => text(64).required();
const textWording = shape({ of: digest(), text: placeholders() }).required();
const contentWording = shape({ of: digest(), content: wordingInlines().required() }).required();
const isText = (value: unknown) => 'text' in Object(value);

/**
 * A piece in the words of an edition. Placeholders in `text` are numbers: `=[1]` is the source's first one; values in
 * `content` are named by their ids. `of` is the digest of the source it was translated from.
 */
const wording = either(isText, textWording, contentWording);
export type Wording = InferType<typeof textWording> | InferType<typeof contentWording>;

/** The translations of an edition, by piece: a block's or list item's id, or its id and a part of it after a dot. */
export const words = () => mapOf(wording);
export type Words = Readonly<Record<string, Wording>>;

/** Twelve digits that are others when the source text is: SHA-256, shortened. */
export function wordingDigest(piece: Piece): string {
  const source = 'text' in piece ? piece.text : JSON.stringify(seenText(piece.content));
  return bytesToHex(sha256(utf8ToBytes(source))).slice(0, 12);
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
