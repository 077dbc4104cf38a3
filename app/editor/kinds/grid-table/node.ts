import { sheetNode } from '../../sheet-node';

/** A table of words: rows of cells with running text. `widths`: parts of the measure. */
export const gridTable = sheetNode(
  'gridTable',
  { optional: ['widths', 'header'] },
  {
    group: 'block',
    content: 'gridRow*',
    isolating: true,
    draggable: true,
    parseHTML: () => [{ tag: 'table' }],
    renderHTML: ({ node, HTMLAttributes }) => [
      'div',
      {
        ...HTMLAttributes,
        'data-kind': 'gridTable',
        'data-header': node.attrs.header ? 'yes' : null,
        style: `--columns: ${((node.attrs.widths as number[] | null) ?? [1]).map((width) => `minmax(0, ${width}fr)`).join(' ')}`,
      },
      0,
    ],
  },
);

export const gridRow = sheetNode(
  'gridRow',
  {},
  {
    content: 'gridCell*',
    parseHTML: () => [{ tag: 'tr' }],
    renderHTML: ({ HTMLAttributes }) => ['div', { ...HTMLAttributes, class: 'row' }, 0],
  },
);

export const gridCell = sheetNode(
  'gridCell',
  {},
  {
    content: 'inline*',
    isolating: true,
    parseHTML: () => [{ tag: 'td' }, { tag: 'th' }],
    renderHTML: ({ HTMLAttributes }) => ['div', { ...HTMLAttributes, class: 'cell' }, 0],
  },
);
