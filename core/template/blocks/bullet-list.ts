import type { InferType } from '../../shape/shape';
import { attrs, branch } from '../node';
import { unchanged, type BlockKind } from './kind';
import { composeItems, listItem, mapItemFormulas, mapItemWords, type ComposedList, type ListItem } from './lists';

const listAttrs = attrs({});

/** A list with bullets. */
export interface BulletList {
  type: 'bulletList';
  attrs: InferType<typeof listAttrs>;
  content?: ListItem[];
}

export const bulletList: BlockKind<BulletList, ComposedList> = {
  shape: branch('bulletList', listAttrs, listItem),
  words: () => 'a list',
  inner: unchanged,
  mapFormulas: mapItemFormulas,
  mapWords: mapItemWords,
  compose: (block, composer, row) => composeItems(block, composer, row),
};
