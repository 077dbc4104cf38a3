import { Extension } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { Plugin } from '@tiptap/pm/state';
import { isOwnChange } from './take-layout';
import { newId } from './new-id';

/** The most columns that a table of words may have. */
const MOST_COLUMNS = 40;

/** Gives every table of words as many cells in each row as it has widths, whatever was pasted or put in. */
export const wholeGridsPlugin = () =>
  new Plugin({
    appendTransaction: (transactions, _, { doc, tr }) => {
      if (!transactions.some(isOwnChange)) return null;
      const broken: { node: Node; position: number }[] = [];
      doc.descendants((node, position) => {
        if (node.type.name === 'gridTable' && !isWhole(node)) broken.push({ node, position });
        return !node.isTextblock;
      });
      for (const { node, position } of broken.reverse())
        tr.replaceWith(position, position + node.nodeSize, madeWhole(node));
      return broken.length > 0 ? tr : null;
    },
  });

export const wholeGrids = Extension.create({ name: 'wholeGrids', addProseMirrorPlugins: () => [wholeGridsPlugin()] });

const widthsOf = ({ attrs }: Node) => (attrs.widths as number[] | null) ?? [];

/** A table that came without widths has none to be held to: it takes those of its longest row. */
function isWhole(table: Node): boolean {
  const widths = widthsOf(table);
  if (widths.length === 0 || table.childCount === 0) return false;
  return table.children.every(({ childCount }) => childCount === widths.length);
}

function madeWhole(table: Node): Node {
  const { schema } = table.type;
  const rows = table.childCount > 0 ? table.children : [schema.node('gridRow', { id: newId() })];
  const known = widthsOf(table);
  const across = Math.min(MOST_COLUMNS, Math.max(1, known.length, ...rows.map(({ childCount }) => childCount)));
  const widths = Array.from({ length: across }, (_, at) => known[at] ?? 1);
  const filled = rows.map((row) => {
    const cells = Array.from(
      { length: across },
      (_, at) => row.maybeChild(at) ?? schema.node('gridCell', { id: newId() }),
    );
    return row.type.create(row.attrs, cells);
  });
  return table.type.create({ ...table.attrs, widths }, filled);
}
