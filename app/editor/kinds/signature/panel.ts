import type { KindPanel } from '../../panel';

export const signaturePanel: KindPanel = {
  type: 'signature',
  label: 'Signature',
  fields: [
    { is: 'text', key: 'label', label: 'Words under the line', hint: '=[formula] brings in a value.' },
    { is: 'text', key: 'date', label: 'Words for the date' },
  ],
  insert: { among: 'Page', make: () => ({ type: 'signature', attrs: { label: 'Signature', date: 'Date' } }) },
};
