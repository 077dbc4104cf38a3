import type { KindPanel } from '../../panel';

export const paymentCodePanel: KindPanel = {
  type: 'paymentCode',
  label: 'Payment code',
  fields: [
    { is: 'formula', key: 'payee', label: 'Paid to' },
    { is: 'formula', key: 'iban', label: 'IBAN' },
    { is: 'formula', key: 'amount', label: 'Amount' },
    { is: 'formula', key: 'reference', label: 'Reference' },
    { is: 'number', key: 'width', label: 'Width', unit: 'pt', least: 1, most: 2_000 },
  ],
  insert: {
    among: 'Record',
    make: () => ({
      type: 'paymentCode',
      attrs: { payee: 'company.name', iban: 'company.iban', amount: '0', reference: 'document.number', width: 90 },
    }),
  },
};
