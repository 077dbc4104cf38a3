import type { KindPanel } from '../../panel';

const row = () => ({ type: 'gridRow', content: [{ type: 'gridCell' }, { type: 'gridCell' }, { type: 'gridCell' }] });

export const gridTablePanel: KindPanel = {
  type: 'gridTable',
  label: 'Table of words',
  fields: [{ is: 'yes', key: 'header', label: 'The first row is a heading' }],
  insert: {
    among: 'Text',
    make: () => ({ type: 'gridTable', attrs: { widths: [1, 1, 1], header: true }, content: [row(), row()] }),
  },
};

export const gridRowPanel: KindPanel = { type: 'gridRow', label: 'Row', fields: [] };
export const gridCellPanel: KindPanel = { type: 'gridCell', label: 'Cell', fields: [] };
