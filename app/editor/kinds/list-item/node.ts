import { sheetNode } from '../../sheet-node';

/** One item of a list, with running text. */
export const listItem = sheetNode(
  'listItem',
  {},
  {
    content: 'inline*',
    parseHTML: () => [{ tag: 'li' }],
    renderHTML: ({ HTMLAttributes }) => ['li', HTMLAttributes, 0],
  },
);
