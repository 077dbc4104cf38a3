import type { KindPanel } from '../../panel';

export const richTextPanel: KindPanel = {
  type: 'richText',
  label: 'Formatted text',
  fields: [
    { is: 'formula', key: 'formula', label: 'Text' },
    { is: 'yes', key: 'mayBeBlank', label: 'May be blank' },
  ],
  insert: { among: 'Record', make: () => ({ type: 'richText', attrs: { formula: '""', mayBeBlank: true } }) },
};
