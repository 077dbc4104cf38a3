import { plainInline, type PlainInline } from './plain';

/** How many pages the document has. */
export type PageCount = PlainInline<'pageCount'>;

export const pageCount = plainInline('pageCount', () => [{ kind: 'pageCount' }]);
