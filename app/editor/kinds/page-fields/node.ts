import { plainNode } from '../../sheet-node';

/** Something of the page in running text; what stands for it is put in by the sheet's style. */
const pageField = (name: string) =>
  plainNode(name, {
    group: 'inline',
    inline: true,
    atom: true,
    marks: '',
    renderHTML: () => ['span', { 'data-field': name }],
  });

export const pageNumber = pageField('pageNumber');
export const pageCount = pageField('pageCount');
export const documentTitle = pageField('documentTitle');
