import { oneOf, type InferType } from '../../shape/shape';
import type { Run } from '../composed';
import { calledByWords, inlineShape, mapInlineFormulas, type Inline } from '../inlines';
import { attrs, branch } from '../node';
import { unchanged, type BlockKind } from './kind';

const paragraphAttrs = attrs({ look: oneOf(['quiet', 'small', 'lead']), align: oneOf(['start', 'end']) });

/** Running text. One whose values are all blank prints nothing. */
export interface Paragraph {
  type: 'paragraph';
  attrs: InferType<typeof paragraphAttrs>;
  content?: Inline[];
}

/** A paragraph as it prints. */
export interface ComposedParagraph {
  kind: 'paragraph';
  block: string;
  look?: 'quiet' | 'small' | 'lead';
  align: 'start' | 'end';
  runs: Run[];
}

export const paragraph: BlockKind<Paragraph, ComposedParagraph> = {
  shape: branch('paragraph', paragraphAttrs, inlineShape),
  words: ({ content }) => calledByWords('paragraph', content),
  inner: unchanged,
  mapFormulas: (block, change) => ({ ...block, ...mapInlineFormulas(block.content, change) }),
  mapWords: (block, change) => ({ ...block, ...change.content(block.attrs.id, block.content) }),
  compose({ attrs: { id, look, align = 'start' }, content }, composer, row) {
    const runs = composer.inlines(content, id, row);
    return runs.length === 0 ? [] : [{ kind: 'paragraph', block: id, look, align, runs }];
  },
};
