import type { KindPanel } from '../../panel';

export const keepTogetherPanel: KindPanel = {
  type: 'keepTogether',
  label: 'Kept together',
  fields: [],
  insert: {
    among: 'Around',
    words: 'Keep together',
    make: () => ({ type: 'keepTogether', content: [{ type: 'paragraph' }] }),
  },
};
