import { sheetNode } from '../../sheet-node';

/** Running text. */
export const paragraph = sheetNode(
  'paragraph',
  { optional: ['look', 'align'] },
  {
    // What a line is unless something else is wanted.
    priority: 1_000,
    group: 'block',
    content: 'inline*',
    draggable: true,
    parseHTML: () => [{ tag: 'p' }],
    renderHTML: ({ node, HTMLAttributes }) => [
      'p',
      { ...HTMLAttributes, 'data-look': node.attrs.look as string, 'data-align': node.attrs.align as string },
      0,
    ],
  },
);
