import { MARGIN_NOTES } from '#core/template/margin-note';
import { holdingBlock } from '../../sheet-node';

/** Blocks repeated for each item of a list. */
export const forEach = holdingBlock(
  'forEach',
  { required: ['list', 'note'], optional: ['startsPage'] },
  {
    renderHTML: ({ node, HTMLAttributes }) => [
      'section',
      { ...HTMLAttributes, 'data-kind': 'forEach', 'data-note': MARGIN_NOTES.forEach(String(node.attrs.note)) },
      0,
    ],
  },
);
