import type { KindPanel } from '../../panel';

export const whenSectionPanel: KindPanel = {
  type: 'whenSection',
  label: 'Condition',
  fields: [
    { is: 'condition', key: 'when', label: 'Printed only when' },
    { is: 'note', key: 'note', label: 'Said in the margin' },
  ],
  insert: {
    among: 'Around',
    words: 'Print only when…',
    make: () => ({
      type: 'whenSection',
      attrs: { when: 'true' },
      content: [{ type: 'then', content: [{ type: 'paragraph' }] }],
    }),
  },
};

export const thenPanel: KindPanel = { type: 'then', label: 'When it holds', fields: [] };
export const otherwisePanel: KindPanel = { type: 'otherwise', label: 'Otherwise', fields: [] };
