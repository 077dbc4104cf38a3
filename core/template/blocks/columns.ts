import { number } from '../../shape/shape';
import { attrs, branch } from '../node';
import { anyBlock } from './any-block';
import type { Block, ComposedBlock } from '.';
import { unchanged, type BlockKind } from './kind';
import { withoutBreaks } from './section';

/** One of the columns; `width` in parts of the measure, beside those of the others. */
export interface Column {
  type: 'column';
  attrs: { id: string; width: number };
  content?: Block[];
}

/** Blocks beside one another. */
export interface Columns {
  type: 'columns';
  attrs: { id: string };
  content?: Column[];
}

/** Columns as they print, each with its blocks. */
export interface ComposedColumns {
  kind: 'columns';
  block: string;
  widths: number[];
  columns: ComposedBlock[][];
}

const column = branch('column', attrs({ width: number().min(0.01).max(100).required() }), anyBlock);

export const columns: BlockKind<Columns, ComposedColumns> = {
  shape: branch('columns', attrs({}), column),
  words: () => 'the columns',
  inner: (block, change) => ({
    ...block,
    ...(block.content && {
      content: block.content.map((each) => (each.content ? { ...each, content: change(each.content) } : each)),
    }),
  }),
  mapFormulas: unchanged,
  mapWords: unchanged,
  compose: ({ attrs: { id }, content = [] }, composer, row) => [
    {
      kind: 'columns',
      block: id,
      widths: content.map(({ attrs: { width } }) => width),
      columns: content.map((each) => withoutBreaks(composer.blocks(each.content, row))),
    },
  ],
};
