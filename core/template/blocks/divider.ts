import { attrs, leaf } from '../node';
import { unchanged, type BlockKind } from './kind';

/** A line across the measure. */
export interface Divider {
  type: 'divider';
  attrs: { id: string };
}

/** A line across the measure, as it prints. */
export interface ComposedDivider {
  kind: 'divider';
  block: string;
}

export const divider: BlockKind<Divider, ComposedDivider> = {
  shape: leaf('divider', attrs({})),
  words: () => 'a line',
  inner: unchanged,
  mapFormulas: unchanged,
  mapWords: unchanged,
  compose: ({ attrs: { id } }) => [{ kind: 'divider', block: id }],
};
