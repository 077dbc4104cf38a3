import type { KindPanel } from '../../panel';

export const valuePanel: KindPanel = {
  type: 'value',
  label: 'Value',
  fields: [
    { is: 'formula', key: 'formula', label: 'Value' },
    { is: 'look', key: 'format', label: 'Look', of: 'formula' },
    { is: 'yes', key: 'mayBeBlank', label: 'May be blank' },
  ],
};
