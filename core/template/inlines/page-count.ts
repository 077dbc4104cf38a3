import { plainInline } from './plain';

/** How many pages the document has. */
export const pageCount = plainInline('pageCount', () => [{ kind: 'pageCount' }]);
