import type { KindPanel } from '../../panel';

export const keepTogetherPanel: KindPanel = {
  type: 'keepTogether',
  label: 'Kept together',
  fields: [],
  insert: {
    among: 'Around',
    words: 'Keep on one page',
    make: () => ({ type: 'keepTogether', content: [{ type: 'paragraph' }] }),
  },
};
