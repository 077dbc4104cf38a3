import { number, type InferType } from '../../shape/shape';
import { attrs, branch } from '../node';
import { unchanged, type BlockKind } from './kind';
import { composeItems, listItem, mapItemFormulas, mapItemWords, type ComposedList, type ListItem } from './lists';

const listAttrs = attrs({ start: number().integer().min(0).max(9_999) });

/** A list that is numbered from `start` on, or from 1. */
export interface NumberedList {
  type: 'numberedList';
  attrs: InferType<typeof listAttrs>;
  content?: ListItem[];
}

export const numberedList: BlockKind<NumberedList, ComposedList> = {
  shape: branch('numberedList', listAttrs, listItem),
  words: () => 'a numbered list',
  inner: unchanged,
  mapFormulas: mapItemFormulas,
  mapWords: mapItemWords,
  compose: (block, composer, row) => composeItems(block, composer, row, block.attrs.start ?? 1),
};
