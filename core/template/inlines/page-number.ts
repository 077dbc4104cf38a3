import { plainInline, type PlainInline } from './plain';

/** The number of the page it stands on. */
export type PageNumber = PlainInline<'pageNumber'>;

export const pageNumber = plainInline('pageNumber', () => [{ kind: 'pageNumber' }]);
