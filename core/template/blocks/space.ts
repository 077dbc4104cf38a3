import { points, type InferType } from '../../shape/shape';
import { attrs, leaf } from '../node';
import { unchanged, type BlockKind } from './kind';

const spaceAttrs = attrs({ height: points().required() });

/** Nothing, of a height in points. */
export interface Space {
  type: 'space';
  attrs: InferType<typeof spaceAttrs>;
}

/** Empty height, as it prints. */
export interface ComposedSpace {
  kind: 'space';
  block: string;
  height: number;
}

export const space: BlockKind<Space, ComposedSpace> = {
  shape: leaf('space', spaceAttrs),
  words: () => 'a space',
  inner: unchanged,
  mapFormulas: unchanged,
  mapWords: unchanged,
  compose: ({ attrs: { id, height } }) => [{ kind: 'space', block: id, height }],
};
