import { Subjects } from '../condition/subjects';
import { conditionSentence, itemSentence } from '../condition/sentence';
import type { Checker } from '../sheet/check';
import type { Block } from './blocks';
import type { LineTable } from './blocks/line-table';
import { ALWAYS, MARGIN_NOTES } from './margin-note';
import { mapBlocks } from './walk';

/** Words for margin notes, made from the formulas where their author wrote none. */
export class NoteWords {
  #subjects: Subjects | undefined;

  constructor(readonly checker: Checker) {}

  get #made(): Subjects {
    return (this.#subjects ??= new Subjects(this.checker));
  }

  /** The blocks, each that has a margin note with its words. */
  noted(blocks: readonly Block[]): Block[] {
    return mapBlocks(blocks, (block, within) => {
      const note = this.#noteFor(block, within);
      return note === undefined ? block : ({ ...block, attrs: { ...block.attrs, note } } as Block);
    });
  }

  /** The margin notes of blocks and of all that they hold, by their ids, in whole: "when the heating is pipe". */
  notesOf(blocks: readonly Block[], found: Record<string, string> = {}): Record<string, string> {
    mapBlocks(blocks, (block, within) => {
      if (block.type === 'lineTable') found[block.attrs.id] = MARGIN_NOTES.forEach(this.#rowOf(block.attrs, within));
      const words = this.#noteFor(block, within) ?? ('note' in block.attrs ? block.attrs.note : undefined);
      if (words !== undefined)
        found[block.attrs.id] = block.type === 'forEach' ? MARGIN_NOTES.forEach(words) : MARGIN_NOTES.when(words);
      return block;
    });
    return found;
  }

  /** What a row of a table is for. */
  #rowOf({ list, filter }: LineTable, within: readonly string[]): string {
    const passing = filter === undefined ? list : `${list}[${filter}]`;
    return itemSentence(passing, this.#made, this.#made.checker.itemIn(within));
  }

  /** The words of a block that has none of its own; undefined for one that has, or needs none. */
  #noteFor(block: Block, within: readonly string[]): string | undefined {
    if ((block.type !== 'whenSection' && block.type !== 'forEach') || block.attrs.note !== undefined) return undefined;
    const item = this.#made.checker.itemIn(within);
    return block.type === 'whenSection'
      ? conditionSentence(block.attrs.when, this.#made, item) || ALWAYS
      : itemSentence(block.attrs.list, this.#made, item);
  }
}
