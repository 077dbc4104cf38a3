import { listInputRule } from '../list-item/list-rule';
import { sheetNode } from '../../sheet-node';

/** A list with bullets. */
export const bulletList = sheetNode(
  'bulletList',
  {},
  {
    group: 'block',
    content: 'listItem*',
    draggable: true,
    parseHTML: () => [{ tag: 'ul' }],
    renderHTML: ({ HTMLAttributes }) => ['ul', HTMLAttributes, 0],
    addInputRules() {
      return [listInputRule(/^[-*] $/, this.type)];
    },
  },
);
