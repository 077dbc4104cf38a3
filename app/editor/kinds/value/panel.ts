import type { KindPanel } from '../../panel';

export const valuePanel: KindPanel = {
  type: 'value',
  label: 'Value',
  fields: [
    { is: 'formula', key: 'formula', label: 'Value' },
    {
      is: 'choice',
      key: 'format',
      label: 'Format',
      options: [
        { value: null, label: 'as usual' },
        { value: 'plain', label: 'without the currency' },
        { value: 'long-date', label: 'long date' },
        { value: 'short-date', label: 'short date' },
      ],
    },
    { is: 'yes', key: 'mayBeBlank', label: 'May be blank' },
  ],
};
