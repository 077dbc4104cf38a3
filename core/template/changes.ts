import type { Inline } from './inlines';
import type { Piece } from './wording';

/** Changes the formulas of one block. `within`: formulas of lists whose items are in scope besides, from the outside in. */
export interface FormulaChanges {
  formula(source: string, ...within: readonly string[]): string;
  /** A text with `=[formula]` placeholders. */
  text(source: string, ...within: readonly string[]): string;
}

/** Changes the words of one block. */
export interface WordsChanges {
  /** Running text, by the id of the node it stands in. */
  content(id: string, inlines: readonly Inline[] | undefined): { content?: Inline[] };
  /** A text with placeholders, by the name of the part it is. */
  text(part: string, words: string): string;
}

/** What to put in place of a piece of words. */
export type PieceChange = <Kind extends Piece>(key: string, piece: Kind, block: string) => Kind;
