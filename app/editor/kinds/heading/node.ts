import { textblockTypeInputRule } from '@tiptap/core';
import { sheetNode } from '../../sheet-node';

const LEVELS = [1, 2, 3] as const;

/** A heading of one of three levels; deeper ones that are pasted are of the third. */
export const heading = sheetNode(
  'heading',
  { required: ['level'] },
  {
    group: 'block',
    content: 'inline*',
    defining: true,
    draggable: true,
    parseHTML: () => [1, 2, 3, 4, 5, 6].map((level) => ({ tag: `h${level}`, attrs: { level: Math.min(level, 3) } })),
    renderHTML: ({ node, HTMLAttributes }) => [`h${node.attrs.level}`, HTMLAttributes, 0],
    addInputRules() {
      return LEVELS.map((level) =>
        textblockTypeInputRule({ find: new RegExp(`^#{${level}} $`), type: this.type, getAttributes: { level } }),
      );
    },
  },
);
