import type { KindPanel } from '../../panel';

const column = () => ({ type: 'column', attrs: { width: 1 }, content: [{ type: 'paragraph' }] });

export const columnsPanel: KindPanel = {
  type: 'columns',
  label: 'Columns',
  fields: [],
  insert: { among: 'Around', words: 'Columns', make: () => ({ type: 'columns', content: [column(), column()] }) },
};

export const columnPanel: KindPanel = {
  type: 'column',
  label: 'Column',
  fields: [{ is: 'number', key: 'width', label: 'Width beside the others', least: 0.01, most: 100 }],
};
