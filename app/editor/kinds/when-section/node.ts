import { holdingBlock, sheetNode } from '../../sheet-node';

/** What prints while a condition holds, and what prints otherwise. */
export const whenSection = holdingBlock(
  'whenSection',
  { required: ['when'], optional: ['note', 'earlierNote'] },
  {
    content: '(then | otherwise) (then | otherwise)?',
    renderHTML: ({ HTMLAttributes }) => [
      'section',
      { ...HTMLAttributes, 'data-kind': 'whenSection', 'data-note': '' },
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
