import { holdingBlock } from '../../sheet-node';

/** Blocks that stand on one page, where they fit on one. */
export const keepTogether = holdingBlock(
  'keepTogether',
  {},
  {
    renderHTML: ({ HTMLAttributes }) => [
      'section',
      { ...HTMLAttributes, 'data-kind': 'keepTogether', 'data-note': 'kept together' },
      0,
    ],
  },
);
