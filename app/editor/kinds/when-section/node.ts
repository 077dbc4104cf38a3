import { MARGIN_NOTES } from '#core/template/margin-note';
import { holdingBlock, sheetNode } from '../../sheet-node';

/** What prints while a condition holds, and what prints otherwise. */
export const whenSection = holdingBlock(
  'whenSection',
  { required: ['when', 'note'] },
  {
    content: '(then | otherwise) (then | otherwise)?',
    renderHTML: ({ node, HTMLAttributes }) => [
      'section',
      { ...HTMLAttributes, 'data-kind': 'whenSection', 'data-note': MARGIN_NOTES.when(String(node.attrs.note)) },
      0,
    ],
  },
);

const branch = (name: 'then' | 'otherwise') =>
  sheetNode(
    name,
    {},
    {
      content: 'block*',
      defining: true,
      renderHTML: ({ HTMLAttributes }) => ['div', { ...HTMLAttributes, 'data-branch': name }, 0],
    },
  );

export const then = branch('then');
export const otherwise = branch('otherwise');
