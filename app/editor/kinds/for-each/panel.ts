import type { KindPanel } from '../../panel';

export const forEachPanel: KindPanel = {
  type: 'forEach',
  label: 'Repetition',
  fields: [
    { is: 'formula', key: 'list', label: 'Items' },
    { is: 'text', key: 'note', label: 'In words, after “for each”' },
    { is: 'yes', key: 'startsPage', label: 'Each begins a page' },
  ],
  insert: {
    among: 'Around',
    words: 'A repetition',
    make: () => ({ type: 'forEach', attrs: { list: 'lines', note: 'line' }, content: [{ type: 'paragraph' }] }),
  },
};
