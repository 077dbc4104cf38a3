import { holdingBlock, sheetNode } from '../../sheet-node';

/** Blocks beside one another. */
export const columns = holdingBlock('columns', {}, { content: 'column*' });

/** One of the columns; `width` in parts of the measure. */
export const column = sheetNode(
  'column',
  { required: ['width'] },
  {
    content: 'block*',
    isolating: true,
    renderHTML: ({ node, HTMLAttributes }) => [
      'div',
      { ...HTMLAttributes, class: 'column', style: `flex: ${String(node.attrs.width ?? 1)} 1 0` },
      0,
    ],
  },
);
