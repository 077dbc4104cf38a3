import type { KindPanel } from '../../panel';

export const whenSectionPanel: KindPanel = {
  type: 'whenSection',
  label: 'Condition',
  fields: [
    { is: 'formula', key: 'when', label: 'Printed only when' },
    { is: 'text', key: 'note', label: 'In words, after “when”' },
  ],
  insert: {
    among: 'Around',
    words: 'A condition',
    make: () => ({
      type: 'whenSection',
      attrs: { when: 'TRUE', note: 'this holds' },
      content: [{ type: 'then', content: [{ type: 'paragraph' }] }],
    }),
  },
};

export const thenPanel: KindPanel = { type: 'then', label: 'When it holds', fields: [] };
export const otherwisePanel: KindPanel = { type: 'otherwise', label: 'Otherwise', fields: [] };
