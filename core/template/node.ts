import type { ISchema, ObjectShape } from 'yup';
import { id, listOf, oneOf, shape, text } from '../shape/shape';

/** Nodes that one node may hold. */
const MOST_CHILDREN = 10_000;

/** A node of the editor's JSON that is known by an id. */
export interface IdentifiedNode {
  type: string;
  attrs: { id: string };
  content?: readonly object[];
}

/** The attributes of a node: its id, which names it in words, findings and edits, and others. */
export const attrs = <Fields extends ObjectShape>(fields: Fields) => shape({ id: id(), ...fields }).required();

/** The words of a margin note where the author wrote some: without them they are made from the formula. */
export const noteAttrs = {
  note: text(200),
  /** What the author wrote for a formula that was changed since. */
  earlierNote: text(200),
};

/** A node that holds none. */
export const leaf = <Type extends string, Attrs>(type: Type, ofAttrs: ISchema<Attrs>) =>
  shape({ type: oneOf([type]).required(), attrs: ofAttrs }).required();

/** A node that holds others; one that holds none at the moment has no `content`, as in the editor. */
export const branch = <Type extends string, Attrs, Child>(type: Type, ofAttrs: ISchema<Attrs>, child: ISchema<Child>) =>
  shape({ type: oneOf([type]).required(), attrs: ofAttrs, content: listOf(child, MOST_CHILDREN) }).required();

/** The same node under another id, and all that it holds under others, too. */
export function withIds<Node extends object>(node: Node, change: (id: string) => string): Node {
  const { attrs: own, content } = node as Partial<IdentifiedNode>;
  return {
    ...node,
    ...(own?.id !== undefined && { attrs: { ...own, id: change(own.id) } }),
    ...(content && { content: content.map((child) => withIds(child, change)) }),
  };
}

/** The ids of a node and of all that it holds, in order. */
export function* idsIn(node: object): Generator<{ id: string; type: string }> {
  const { type, attrs: own, content } = node as Partial<IdentifiedNode>;
  if (own?.id !== undefined && type !== undefined) yield { id: own.id, type };
  for (const child of content ?? []) yield* idsIn(child);
}
