import { attrs, leaf } from '../node';
import { unchanged, type BlockKind } from './kind';

/** What follows begins on a new page. */
export interface PageBreak {
  type: 'pageBreak';
  attrs: { id: string };
}

/** The start of a new page, as it prints. */
export interface ComposedPageBreak {
  kind: 'pageBreak';
  block: string;
}

export const pageBreak: BlockKind<PageBreak, ComposedPageBreak> = {
  shape: leaf('pageBreak', attrs({})),
  words: () => 'a page break',
  inner: unchanged,
  mapFormulas: unchanged,
  mapWords: unchanged,
  compose: ({ attrs: { id } }) => [{ kind: 'pageBreak', block: id }],
};
