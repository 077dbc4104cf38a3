import { plainInline, type PlainInline } from './plain';

/** The document's title, as its plan has it. */
export type DocumentTitle = PlainInline<'documentTitle'>;

export const documentTitle = plainInline('documentTitle', ({ around }) => [...around.title]);
