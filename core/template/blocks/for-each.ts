import { boolean, formula, type InferType } from '../../shape/shape';
import { MARGIN_NOTES } from '../margin-note';
import { attrs, branch, noteAttrs } from '../node';
import { anyBlock } from './any-block';
import type { Block, ComposedBlock } from '.';
import { unchanged, type BlockKind } from './kind';
import { sectionOf, type ComposedSection } from './section';

const forEachAttrs = attrs({
  list: formula().required(),
  ...noteAttrs,
  /** Each item begins a page of its own. */
  startsPage: boolean(),
});

/** Blocks repeated for each item of a list, with the item in scope; nothing at all for an empty one. */
export interface ForEach {
  type: 'forEach';
  attrs: InferType<typeof forEachAttrs>;
  content?: Block[];
}

export const forEach: BlockKind<ForEach, ComposedSection> = {
  shape: branch('forEach', forEachAttrs, anyBlock),
  words: ({ attrs: { note, list } }) => `the section for each ${note ?? list}`,
  inner: (block, change) => (block.content ? { ...block, content: change(block.content, block.attrs.list) } : block),
  mapFormulas: (block, change) => ({ ...block, attrs: { ...block.attrs, list: change.formula(block.attrs.list) } }),
  mapWords: unchanged,
  compose({ attrs: { id, list, note = list, startsPage }, content }, composer, row) {
    const blocks = composer
      .rows(id, list, note, row)
      .flatMap((item): ComposedBlock[] => [
        ...(startsPage ? [{ kind: 'pageBreak' as const, block: id }] : []),
        ...composer.blocks(content, item),
      ]);
    return sectionOf(id, MARGIN_NOTES.forEach(note), blocks);
  },
};
