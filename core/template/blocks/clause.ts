import { id, type InferType } from '../../shape/shape';
import { attrs, leaf } from '../node';
import { unchanged, type BlockKind } from './kind';

const clauseAttrs = attrs({ clause: id() });

/** The blocks of a clause, as the template version pins it. Assembling puts them in its place, so it prints nothing itself. */
export interface ClauseBlock {
  type: 'clause';
  attrs: InferType<typeof clauseAttrs>;
}

export const clause: BlockKind<ClauseBlock, never> = {
  shape: leaf('clause', clauseAttrs),
  words: ({ attrs: own }) => `the clause “${own.clause}”`,
  inner: unchanged,
  mapFormulas: unchanged,
  mapWords: unchanged,
  compose: () => [],
};
