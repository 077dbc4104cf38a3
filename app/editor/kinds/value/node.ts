import { sheetNode } from '../../sheet-node';
import { shownWords, ValueView } from './value-view';

/** What a formula gives, in the words of the edition. */
export const value = sheetNode(
  'value',
  { required: ['formula'], optional: ['format', 'mayBeBlank', 'blankAs'] },
  {
    group: 'inline',
    inline: true,
    atom: true,
    draggable: true,
    // What is copied to another program is what is read here.
    renderHTML: ({ node, HTMLAttributes }) => ['span', { ...HTMLAttributes, class: 'value' }, shownWords(node)],
    renderText: ({ node }) => shownWords(node),
    addNodeView:
      () =>
      ({ node }) =>
        new ValueView(node),
  },
);
