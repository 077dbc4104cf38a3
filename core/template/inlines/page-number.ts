import { plainInline } from './plain';

/** The number of the page it stands on. */
export const pageNumber = plainInline('pageNumber', () => [{ kind: 'pageNumber' }]);
