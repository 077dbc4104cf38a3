import type { KindPanel } from '../../panel';

export const paragraphPanel: KindPanel = {
  type: 'paragraph',
  label: 'Paragraph',
  fields: [
    {
      is: 'choice',
      key: 'look',
      label: 'Look',
      options: [
        { value: null, label: 'plain' },
        { value: 'lead', label: 'lead' },
        { value: 'small', label: 'small' },
        { value: 'quiet', label: 'quiet' },
      ],
    },
    {
      is: 'choice',
      key: 'align',
      label: 'Align',
      options: [
        { value: null, label: 'start' },
        { value: 'end', label: 'end' },
      ],
    },
  ],
  insert: { among: 'Text', make: () => ({ type: 'paragraph' }) },
};
