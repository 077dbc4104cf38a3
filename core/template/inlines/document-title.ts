import { plainInline } from './plain';

/** The document's title, as its plan has it. */
export const documentTitle = plainInline('documentTitle', ({ around }) => [...around.title]);
