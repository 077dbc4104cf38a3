import { Mark, Node, type MarkConfig, type NodeConfig } from '@tiptap/core';

/** The attributes of a kind, named as in a stored layout. One that is required is never made up: nothing puts such a part in by itself. */
export interface Attributes {
  required?: readonly string[];
  optional?: readonly string[];
}

/** Attributes as they are in a stored layout: what is not said there is null here. The id stands in the page, so that a part is found. */
function attributes({ required = [], optional = [] }: Attributes): Record<string, object> {
  const plain = { rendered: false, parseHTML: () => null };
  return {
    ...Object.fromEntries(optional.map((name) => [name, { ...plain, default: null }])),
    ...Object.fromEntries(required.map((name) => [name, { ...plain, isRequired: true }])),
  };
}

/** A part that is split off or pasted gets an id of its own. */
const ID = {
  id: {
    default: null,
    keepOnSplit: false,
    parseHTML: () => null,
    renderHTML: ({ id }: { id?: string }) => ({ 'data-id': id }),
  },
};

/** A node of the sheet without an id: a region of the page, or something in its text that is the same everywhere. */
export function plainNode(name: string, config: Partial<NodeConfig>): Node {
  return Node.create({ name, ...config });
}

/** A part of the sheet, named as in a stored layout and known by its id. */
export function sheetNode(name: string, its: Attributes, config: Partial<NodeConfig>): Node {
  return Node.create({ name, addAttributes: () => ({ ...ID, ...attributes(its) }), ...config });
}

/** A block that is computed as a whole: it is chosen, moved and deleted as one. */
export function computedBlock(name: string, its: Attributes = {}): Node {
  return sheetNode(name, its, {
    group: 'block',
    atom: true,
    draggable: true,
    renderHTML: ({ HTMLAttributes }) => ['div', { ...HTMLAttributes, 'data-kind': name }],
  });
}

/** A block that other blocks stand in. */
export function holdingBlock(name: string, its: Attributes, config: Partial<NodeConfig> = {}): Node {
  return sheetNode(name, its, {
    group: 'block',
    content: 'block*',
    defining: true,
    draggable: true,
    renderHTML: ({ HTMLAttributes }) => ['section', { ...HTMLAttributes, 'data-kind': name }, 0],
    ...config,
  });
}

/** A look of a piece of text. They stand in a layout in the order that they are listed in. */
export function sheetMark(name: string, its: Attributes, config: Partial<MarkConfig>): Mark {
  return Mark.create({ name, addAttributes: () => attributes(its), ...config });
}
