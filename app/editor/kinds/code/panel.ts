import type { KindPanel } from '../../panel';

export const codePanel: KindPanel = {
  type: 'code',
  label: 'Code',
  fields: [
    {
      is: 'choice',
      key: 'symbology',
      label: 'Kind',
      options: [
        { value: 'qrcode', label: 'QR code' },
        { value: 'code128', label: 'Code 128' },
        { value: 'datamatrix', label: 'Data Matrix' },
        { value: 'ean13', label: 'EAN-13' },
      ],
    },
    { is: 'formula', key: 'formula', label: 'What it says' },
    { is: 'number', key: 'width', label: 'Width', unit: 'pt', least: 1, most: 2_000 },
    { is: 'text', key: 'alt', label: 'In words, for those who cannot see it' },
  ],
  insert: {
    among: 'Record',
    make: () => ({ type: 'code', attrs: { symbology: 'qrcode', formula: 'document.number', width: 70, alt: 'Code' } }),
  },
};
