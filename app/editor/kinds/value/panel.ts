import type { KindPanel } from '../../panel';

export const valuePanel: KindPanel = {
  type: 'value',
  label: 'Value',
  fields: [
    { is: 'formula', key: 'formula', label: 'Value' },
    { is: 'look', key: 'format', label: 'Look', of: 'formula' },
    { is: 'yes', key: 'mayBeBlank', label: 'May be blank' },
    {
      is: 'choice',
      key: 'blankAs',
      label: 'Where it is blank',
      onlyWith: 'mayBeBlank',
      options: [
        { value: null, label: 'it is left out' },
        { value: 'ruledSpace', label: 'a ruled space to write on' },
      ],
    },
  ],
};
