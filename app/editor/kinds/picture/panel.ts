import type { Field, KindPanel } from '../../panel';

/** Where something stands within the measure. */
export const PLACE: Field = {
  is: 'choice',
  key: 'align',
  label: 'Align',
  options: [
    { value: null, label: 'start' },
    { value: 'end', label: 'end' },
  ],
};

export const picturePanel: KindPanel = {
  type: 'picture',
  label: 'Picture',
  fields: [
    { is: 'file', key: 'file', label: 'File' },
    { is: 'formula', key: 'formula', label: 'Or from the record', optional: true },
    { is: 'number', key: 'width', label: 'Width at most', unit: 'pt', least: 1, most: 2_000 },
    { is: 'number', key: 'height', label: 'Height at most', unit: 'pt', least: 1, most: 2_000, optional: true },
    { is: 'text', key: 'alt', label: 'In words, for those who cannot see it' },
    PLACE,
  ],
};
