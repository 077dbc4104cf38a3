import { listInputRule } from '../list-item/list-rule';
import { sheetNode } from '../../sheet-node';

/** A list that is numbered from `start` on, or from 1. */
export const numberedList = sheetNode(
  'numberedList',
  { optional: ['start'] },
  {
    group: 'block',
    content: 'listItem*',
    draggable: true,
    parseHTML: () => [{ tag: 'ol' }],
    renderHTML: ({ node, HTMLAttributes }) => ['ol', { ...HTMLAttributes, start: node.attrs.start as number }, 0],
    addInputRules() {
      return [listInputRule(/^1\. $/, this.type)];
    },
  },
);
