import { number, type InferType } from '../../shape/shape';
import type { Run } from '../composed';
import { calledByWords, inlineShape, mapInlineFormulas, type Inline } from '../inlines';
import { attrs, branch } from '../node';
import { unchanged, type BlockKind } from './kind';

const headingAttrs = attrs({ level: number<1 | 2 | 3>().oneOf([1, 2, 3]).required() });

/** A heading of one of three levels. */
export interface Heading {
  type: 'heading';
  attrs: InferType<typeof headingAttrs>;
  content?: Inline[];
}

/** A heading as it prints. */
export interface ComposedHeading {
  kind: 'heading';
  block: string;
  level: 1 | 2 | 3;
  runs: Run[];
}

export const heading: BlockKind<Heading, ComposedHeading> = {
  shape: branch('heading', headingAttrs, inlineShape),
  words: ({ content }) => calledByWords('heading', content),
  inner: unchanged,
  mapFormulas: (block, change) => ({ ...block, ...mapInlineFormulas(block.content, change) }),
  mapWords: (block, change) => ({ ...block, ...change.content(block.attrs.id, block.content) }),
  compose: ({ attrs: { id, level }, content }, composer, row) => [
    { kind: 'heading', block: id, level, runs: composer.inlines(content, id, row) },
  ],
};
