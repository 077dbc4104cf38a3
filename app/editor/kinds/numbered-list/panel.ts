import type { KindPanel } from '../../panel';

export const numberedListPanel: KindPanel = {
  type: 'numberedList',
  label: 'Numbered list',
  fields: [{ is: 'number', key: 'start', label: 'Starts at', least: 0, most: 9_999, optional: true }],
  insert: {
    among: 'Text',
    keys: '1. at a line’s start',
    make: () => ({ type: 'numberedList', content: [{ type: 'listItem' }] }),
  },
};
