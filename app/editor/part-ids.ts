import { Extension } from '@tiptap/core';
import { Fragment, type Node } from '@tiptap/pm/model';
import { Plugin } from '@tiptap/pm/state';
import { newId } from './new-id';
import { isOwnChange } from './take-layout';

const hasId = ({ type }: Node) => type.spec.attrs !== undefined && 'id' in type.spec.attrs;

/** Parts without an id, and those with one that stands before already, by their positions. */
function toName(doc: Node): number[] {
  const seen = new Set<string>();
  const found: number[] = [];
  doc.descendants((node, position) => {
    if (!hasId(node)) return;
    const id = node.attrs.id as string | null;
    if (id === null || seen.has(id)) found.push(position);
    else seen.add(id);
  });
  return found;
}

/** The same nodes, each part without an id under one of its own: what is put in by thousands is named before it is. */
export const named = (nodes: Fragment): Fragment =>
  Fragment.fromArray(
    nodes.content.map((node) => {
      if (node.isText) return node;
      const attrs = hasId(node) && node.attrs.id === null ? { ...node.attrs, id: newId() } : node.attrs;
      return node.type.create(attrs, named(node.content), node.marks);
    }),
  );

/** Gives every part of the sheet an id of its own, whatever was split, pasted or put in. */
export const partIdsPlugin = () =>
  new Plugin({
    appendTransaction: (transactions, _, { doc, tr }) => {
      if (!transactions.some(isOwnChange)) return null;
      const positions = toName(doc);
      for (const position of positions) tr.setNodeAttribute(position, 'id', newId());
      return positions.length > 0 ? tr : null;
    },
  });

export const partIds = Extension.create({ name: 'partIds', addProseMirrorPlugins: () => [partIdsPlugin()] });
