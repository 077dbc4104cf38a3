import type { KindPanel } from '../../panel';

export const bulletListPanel: KindPanel = {
  type: 'bulletList',
  label: 'List',
  fields: [],
  insert: {
    among: 'Text',
    keys: '- at a line’s start',
    make: () => ({ type: 'bulletList', content: [{ type: 'listItem' }] }),
  },
};
