import { blockList } from './blocks';
import { boolean, oneOf, shape } from '../shape/shape';
import { letterhead, margins } from './house-style';

export const PAGE_SIZES = ['a4', 'letter', 'a5'] as const;
export type PageSize = (typeof PAGE_SIZES)[number];

/** What a template prints: page set-up and blocks. What runs along the pages is the house style's, unless it is here. */
export const layout = shape({
  page: shape({ size: oneOf(PAGE_SIZES).required(), landscape: boolean(), margins }).required(),
  ...letterhead,
  body: blockList().required(),
}).required();
