import type { KindPanel } from '../../panel';

export const clausePanel: KindPanel = {
  type: 'clause',
  label: 'Clause',
  fields: [
    { is: 'text', key: 'clause', label: 'Its id' },
    { is: 'uses', key: 'clause', label: 'Where it is used' },
  ],
};
