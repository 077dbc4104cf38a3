import { boolean, listOf, number, type InferType } from '../../shape/shape';
import type { Run } from '../composed';
import { inlineShape, mapInlineFormulas, type Inline } from '../inlines';
import { attrs, branch } from '../node';
import { unchanged, type BlockKind } from './kind';

const gridAttrs = attrs({
  /** In fractions of the measure, one for each column. */
  widths: listOf(number().min(0.01).max(100).required(), 40).min(1).required(),
  /** The first row is a heading. */
  header: boolean(),
});

/** One cell, with running text. */
export interface GridCell {
  type: 'gridCell';
  attrs: { id: string };
  content?: Inline[];
}

/** One row, a cell for each width of the table. */
export interface GridRow {
  type: 'gridRow';
  attrs: { id: string };
  content?: GridCell[];
}

/** A table of words. */
export interface GridTable {
  type: 'gridTable';
  attrs: InferType<typeof gridAttrs>;
  content?: GridRow[];
}

/** A table of words as it prints: rows, cells, runs. */
export interface ComposedGrid {
  kind: 'grid';
  block: string;
  widths: number[];
  header: boolean;
  rows: Run[][][];
}

const gridCell = branch('gridCell', attrs({}), inlineShape);
const gridRow = branch('gridRow', attrs({}), gridCell);

export const gridTable: BlockKind<GridTable, ComposedGrid> = {
  shape: branch('gridTable', gridAttrs, gridRow),
  words: () => 'a table of words',
  inner: unchanged,
  mapFormulas: (block, change) => mapCells(block, (cell) => ({ ...cell, ...mapInlineFormulas(cell.content, change) })),
  mapWords: (block, change) => mapCells(block, (cell) => ({ ...cell, ...change.content(cell.attrs.id, cell.content) })),
  compose({ attrs: { id, widths, header = false }, content = [] }, composer, row) {
    const rows = content.map(({ content: cells = [] }) => cells.map((cell) => composer.inlines(cell.content, id, row)));
    return [{ kind: 'grid', block: id, widths, header, rows }];
  },
};

function mapCells(block: GridTable, change: (cell: GridCell) => GridCell): GridTable {
  if (!block.content) return block;
  return {
    ...block,
    content: block.content.map((row) => (row.content ? { ...row, content: row.content.map(change) } : row)),
  };
}
