import { attrs, branch } from '../node';
import { anyBlock } from './any-block';
import type { Block, ComposedBlock } from '.';
import { unchanged, type BlockKind } from './kind';
import { withoutBreaks } from './section';

/** Blocks that stand on one page, where they fit on one. */
export interface KeepTogether {
  type: 'keepTogether';
  attrs: { id: string };
  content?: Block[];
}

/** Blocks that are kept on one page, as they print. */
export interface ComposedKeep {
  kind: 'keep';
  block: string;
  blocks: ComposedBlock[];
}

export const keepTogether: BlockKind<KeepTogether, ComposedKeep> = {
  shape: branch('keepTogether', attrs({}), anyBlock),
  words: () => 'what is kept together',
  inner: (block, change) => (block.content ? { ...block, content: change(block.content) } : block),
  mapFormulas: unchanged,
  mapWords: unchanged,
  compose({ attrs: { id }, content }, composer, row) {
    const blocks = withoutBreaks(composer.blocks(content, row));
    return blocks.length === 0 ? [] : [{ kind: 'keep', block: id, blocks }];
  },
};
