import type { Mark, Node, NodeType, Schema } from '@tiptap/pm/model';
import type { Block } from '#core/template/blocks';
import type { Template } from '#core/template/template';

type Layout = Template['layout'];

/** A node of a stored layout. */
interface Json {
  type: string;
  attrs?: Readonly<Record<string, unknown>>;
  content?: readonly Json[];
  text?: string;
  marks?: readonly { type: string; attrs?: Readonly<Record<string, unknown>> }[];
}

/** The parts of the sheet that hold blocks, in the order of the page, with the fields of a layout that they are. */
export const REGIONS = [
  ['pageHeader', 'header'],
  ['pageFollowingHeader', 'followingHeader'],
  ['pageBody', 'body'],
  ['pageFooter', 'footer'],
] as const;

/** The longest piece of text in a layout, in characters. */
const LONGEST = 10_000;

/**
 * A stored layout as the editor's document, and back. Both are kept for as long as they do not change: what was not touched is the very
 * same on both sides, so that a change costs no more than the part that it changes.
 */
export class LayoutDoc {
  readonly #nodes = new WeakMap<object, Node>();
  readonly #kept = new WeakMap<Node, Json>();

  constructor(readonly schema: Schema) {}

  /** The document of a layout. */
  docOf(layout: Layout): Node {
    const regions = REGIONS.flatMap(([type, field]) => {
      const blocks = layout[field];
      return blocks ? [this.#type(type).create(null, this.#all(blocks))] : [];
    });
    return this.schema.topNodeType.create(null, regions);
  }

  /** The layout of a document; `before` itself where it is the same. */
  layoutOf(doc: Node, before: Layout): Layout {
    const regions = new Map<string, readonly Json[]>();
    doc.forEach((region) => regions.set(region.type.name, this.#inside(region)));
    const layout: Layout = { ...before };
    let differs = false;
    for (const [type, field] of REGIONS) {
      const blocks = regions.get(type) as Block[] | undefined;
      if (same(blocks, before[field])) continue;
      differs = true;
      if (blocks === undefined) delete layout[field];
      else layout[field] = blocks;
    }
    return differs ? layout : before;
  }

  /** One node of a layout as the editor has it. */
  nodeOf(json: Json): Node {
    const known = this.#nodes.get(json);
    if (known) return known;
    const node = this.#made(json);
    this.#nodes.set(json, node);
    this.#kept.set(node, json);
    return node;
  }

  #made({ type, text, attrs, content = [], marks = [] }: Json): Node {
    // Of each kind the last one counts.
    const looks = marks.reduce<readonly Mark[]>(
      (before, mark) => this.schema.mark(mark.type, mark.attrs).addToSet(before),
      [],
    );
    return type === 'text' ? this.schema.text(text!, looks) : this.#type(type).create(attrs, this.#all(content), looks);
  }

  #all = (all: readonly object[]): Node[] => all.map((each) => this.nodeOf(each as Json));
  #type = (name: string): NodeType => this.schema.nodes[name]!;

  #inside(node: Node): Json[] {
    return node.children.flatMap((child) => this.#jsonOf(child));
  }

  /** A node as a layout has it; a text that is too long for one piece in several. */
  #jsonOf(node: Node): Json[] {
    const known = this.#kept.get(node);
    if (known) return [known];
    if (node.isText) return this.#textOf(node);
    const json: Json = {
      type: node.type.name,
      ...(node.type.spec.attrs && { attrs: said(node.attrs) }),
      ...(node.childCount > 0 && { content: this.#inside(node) }),
      ...(node.type.name === 'value' && marksOf(node)),
    };
    return [this.#keep(node, json)];
  }

  #textOf(node: Node): Json[] {
    const text = node.text!;
    if (text.length <= LONGEST) return [this.#keep(node, { type: 'text', text, ...marksOf(node) })];
    const pieces: Json[] = [];
    for (let at = 0; at < text.length;) {
      // Both halves of a character beyond the first plane stay together.
      const end = at + LONGEST - (/[\uD800-\uDBFF]/.test(text[at + LONGEST - 1]!) ? 1 : 0);
      pieces.push({ type: 'text', text: text.slice(at, end), ...marksOf(node) });
      at = end;
    }
    return pieces;
  }

  #keep(node: Node, json: Json): Json {
    this.#kept.set(node, json);
    this.#nodes.set(json, node);
    return json;
  }
}

/** The attributes that are said. */
const said = (attrs: Readonly<Record<string, unknown>>) =>
  Object.fromEntries(Object.entries(attrs).filter(([, value]) => value !== null && value !== undefined));

function marksOf({ marks }: Node): Pick<Json, 'marks'> {
  if (marks.length === 0) return {};
  return {
    marks: marks.map(({ type, attrs }) => ({
      type: type.name,
      ...(Object.keys(type.spec.attrs ?? {}).length > 0 && { attrs: said(attrs) }),
    })),
  };
}

const same = (some: readonly object[] | undefined, others: readonly object[] | undefined): boolean =>
  some === others ||
  (!!some && !!others && some.length === others.length && some.every((each, at) => each === others[at]));
