import type { Template } from '#core/template/template';
import { formulaWords, placeholderWords } from './formula-words';
import { REGIONS } from './layout-doc';
import { panelOf } from './kinds/panels';

/** A block as the outline lists it. */
export interface OutlineEntry {
  id: string;
  kind: string;
  /** Its first words, or its note. */
  words: string;
  depth: number;
}

interface Node {
  type: string;
  attrs?: { id?: string; label?: string; formula?: string };
  content?: readonly Node[];
  text?: string;
}

const MOST_WORDS = 60;

/** The blocks of a layout in their order, those that hold others before what they hold. */
export function outlineOf(layout: Template['layout'], notes: Readonly<Record<string, string>> = {}): OutlineEntry[] {
  const found: OutlineEntry[] = [];
  for (const [, field] of REGIONS) for (const block of layout[field] ?? []) visit(block as Node, 0);
  return found;

  function visit(node: Node, depth: number): void {
    // What is printed when a condition holds is listed by what it holds alone.
    const isListed = node.attrs?.id !== undefined && node.type !== 'then';
    if (isListed)
      found.push({ id: node.attrs!.id!, kind: kindOf(node), words: notes[node.attrs!.id!] ?? wordsOf(node), depth });
    if (/^(paragraph|heading|bulletList|numberedList|gridTable)$/.test(node.type)) return;
    for (const inner of node.content ?? []) visit(inner, isListed ? depth + 1 : depth);
  }
}

const kindOf = ({ type }: Node) => panelOf(type)?.label ?? type;

/** What people know a block by. */
function wordsOf(node: Node): string {
  const { label } = node.attrs ?? {};
  return (label === undefined ? textOf(node) : placeholderWords(label)).trim().slice(0, MOST_WORDS);
}

function textOf({ text, type, attrs, content = [] }: Node): string {
  if (text !== undefined) return text;
  if (type === 'value') return formulaWords(attrs?.formula ?? '');
  return content.map(textOf).join(type === 'paragraph' || type === 'heading' ? '' : ' ');
}
