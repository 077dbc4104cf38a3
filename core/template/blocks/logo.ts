import { oneOf, points, type InferType } from '../../shape/shape';
import { attrs, leaf } from '../node';
import { unchanged, type BlockKind } from './kind';
import type { ComposedPicture } from './picture';

const logoAttrs = attrs({ width: points().required(), align: oneOf(['start', 'end']) });

/** The house style's logo. */
export interface Logo {
  type: 'logo';
  attrs: InferType<typeof logoAttrs>;
}

export const logo: BlockKind<Logo, ComposedPicture> = {
  shape: leaf('logo', logoAttrs),
  words: () => 'the logo',
  inner: unchanged,
  mapFormulas: unchanged,
  mapWords: unchanged,
  compose: ({ attrs: { id, width, align = 'start' } }, { around }) => [
    { kind: 'picture', block: id, ...around.logo, width, align },
  ],
};
