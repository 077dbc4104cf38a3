import type { Field, KindPanel } from '../../panel';

const column: readonly Field[] = [
  { is: 'text', key: 'heading', label: 'Heading' },
  { is: 'formula', key: 'formula', label: 'Value', ofItems: true },
  { is: 'look', key: 'format', label: 'Look', of: 'formula', ofItems: true },
  { is: 'formula', key: 'detail', label: 'Second line', ofItems: true, optional: true },
  {
    is: 'choice',
    key: 'align',
    label: 'Align',
    options: [
      { value: 'start', label: 'start' },
      { value: 'end', label: 'end' },
    ],
  },
  {
    is: 'choice',
    key: 'width',
    label: 'Width',
    options: [
      { value: 'content', label: 'as its content asks' },
      { value: 'rest', label: 'all the rest' },
    ],
  },
  { is: 'yes', key: 'counter', label: 'Numbers the rows' },
  { is: 'yes', key: 'mayBeBlank', label: 'May be blank' },
  { is: 'condition', key: 'when', label: 'Printed only when', optional: true },
  { is: 'formula', key: 'total', label: 'Adds up to', optional: true },
];

export const lineTablePanel: KindPanel = {
  type: 'lineTable',
  label: 'Line table',
  fields: [
    { is: 'text', key: 'label', label: 'Name' },
    { is: 'formula', key: 'list', label: 'Lines' },
    { is: 'condition', key: 'filter', label: 'Only those of which', ofItems: true, optional: true },
    {
      is: 'rows',
      key: 'columns',
      label: 'Columns',
      one: 'column',
      named: 'heading',
      make: () => ({ heading: 'Column', formula: '""', align: 'start', width: 'content' }),
      fields: column,
    },
    {
      is: 'group',
      key: 'sort',
      label: 'In order',
      make: () => ({ by: 'name' }),
      fields: [
        { is: 'formula', key: 'by', label: 'By', ofItems: true },
        { is: 'yes', key: 'descending', label: 'Largest first' },
      ],
    },
    { is: 'text', key: 'empty', label: 'Without lines it says', optional: true },
    {
      is: 'choice',
      key: 'style',
      label: 'Look',
      options: [
        { value: null, label: 'as in the house style' },
        { value: 'rules', label: 'hairlines' },
        { value: 'bands', label: 'bands' },
        { value: 'dense', label: 'dense' },
      ],
    },
  ],
  insert: {
    among: 'Record',
    make: (id, lines = []) => ({
      type: 'lineTable',
      attrs: {
        label: 'Lines',
        list: 'lines',
        columns:
          lines.length > 0
            ? lines
            : [{ id: id(), heading: '', formula: '', counter: true, align: 'end', width: 'content' }],
      },
    }),
  },
};
