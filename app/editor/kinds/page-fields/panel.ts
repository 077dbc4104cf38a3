import type { KindPanel } from '../../panel';

export const pageNumberPanel: KindPanel = {
  type: 'pageNumber',
  label: 'Page number',
  fields: [],
  insert: { among: 'Page', make: () => ({ type: 'pageNumber' }) },
};
export const pageCountPanel: KindPanel = {
  type: 'pageCount',
  label: 'Number of pages',
  fields: [],
  insert: { among: 'Page', make: () => ({ type: 'pageCount' }) },
};
export const documentTitlePanel: KindPanel = {
  type: 'documentTitle',
  label: 'Title of the document',
  fields: [],
  insert: { among: 'Page', make: () => ({ type: 'documentTitle' }) },
};
