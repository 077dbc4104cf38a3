import type { KindPanel } from '../../panel';

export const forEachPanel: KindPanel = {
  type: 'forEach',
  label: 'Repetition',
  fields: [
    { is: 'items', key: 'list', label: 'Repeated for each of' },
    { is: 'note', key: 'note', label: 'Said in the margin' },
    { is: 'yes', key: 'startsPage', label: 'Each begins a page' },
  ],
  insert: {
    among: 'Around',
    words: 'Repeat for each…',
    make: () => ({ type: 'forEach', attrs: { list: 'lines' }, content: [{ type: 'paragraph' }] }),
  },
};
