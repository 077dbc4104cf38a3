import { holdingBlock } from '../../sheet-node';

/** Blocks repeated for each item of a list. */
export const forEach = holdingBlock(
  'forEach',
  { required: ['list'], optional: ['note', 'earlierNote', 'startsPage'] },
  {
    renderHTML: ({ HTMLAttributes }) => ['section', { ...HTMLAttributes, 'data-kind': 'forEach', 'data-note': '' }, 0],
  },
);
