import type { KindPanel } from '../../panel';

export const totalsPanel: KindPanel = {
  type: 'totals',
  label: 'Totals',
  fields: [
    {
      is: 'rows',
      key: 'rows',
      label: 'Rows',
      one: 'row',
      named: 'label',
      make: () => ({ label: 'Total', formula: '0' }),
      fields: [
        { is: 'text', key: 'label', label: 'Words' },
        { is: 'formula', key: 'formula', label: 'Value' },
        { is: 'formula', key: 'each', label: 'For each item of', optional: true },
        { is: 'condition', key: 'when', label: 'Printed only when', optional: true },
        {
          is: 'choice',
          key: 'emphasis',
          label: 'Look',
          options: [
            { value: null, label: 'plain' },
            { value: 'total', label: 'as the total' },
          ],
        },
      ],
    },
  ],
};
