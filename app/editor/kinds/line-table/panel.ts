import type { Field, KindPanel } from '../../panel';

/** The properties of one column. */
export const COLUMN_FIELDS: readonly Field[] = [
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
    ofParts: true,
  },
  {
    is: 'group',
    key: 'picture',
    label: 'Prints a picture',
    make: () => ({ width: 34, height: 26 }),
    fields: [
      { is: 'number', key: 'width', label: 'Width at most', unit: 'pt', least: 1, most: 500 },
      { is: 'number', key: 'height', label: 'Height at most', unit: 'pt', least: 1, most: 500 },
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
    { is: 'items', key: 'list', label: 'A row for each of' },
    { is: 'condition', key: 'filter', label: 'Of them only those', ofItems: true, optional: true, onlyWith: 'filter' },
    { is: 'table', key: 'optional', label: 'Optional ones' },
    { is: 'table', key: 'groups', label: 'Grouped by' },
    {
      is: 'rows',
      key: 'columns',
      label: 'Columns',
      one: 'column',
      named: 'heading',
      make: () => ({ heading: 'Column', formula: '""', align: 'start', width: 'content' }),
      fields: COLUMN_FIELDS,
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
    { is: 'table', key: 'carry', label: 'Sum carried from page to page' },
    { is: 'text', key: 'empty', label: 'Without lines it says', optional: true },
    {
      is: 'group',
      key: 'bundles',
      label: 'Bundles',
      make: () => ({ key: '""', partOf: '""', show: '"indented"', name: '""' }),
      fields: [
        { is: 'formula', key: 'key', label: 'What a whole is known by', ofItems: true },
        { is: 'formula', key: 'partOf', label: 'The whole that a part is of', ofItems: true },
        {
          is: 'formula',
          key: 'show',
          label: 'How parts are shown',
          hint: 'indented, rolled up or hidden',
          ofItems: true,
        },
        { is: 'formula', key: 'name', label: 'What a part is called', ofItems: true },
      ],
    },
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
};
