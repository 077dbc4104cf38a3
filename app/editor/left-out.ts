import { Extension } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { Plugin, PluginKey, type EditorState, type Transaction } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';

/** Sections that the record leaves out, by their ids, and what the record is called: "deal". */
interface LeftOut {
  ids: ReadonlySet<string>;
  record: string;
}

const KEY = new PluginKey<LeftOut>('leftOut');

/** Says which sections the record leaves out: they are folded to a line while nobody writes in them. */
export const setLeftOut = (transaction: Transaction, leftOut: LeftOut): Transaction =>
  transaction.setMeta(KEY, leftOut).setMeta('addToHistory', false);

export const leftOutSections = Extension.create({
  name: 'leftOutSections',
  addProseMirrorPlugins: () => [
    new Plugin<LeftOut>({
      key: KEY,
      state: {
        init: () => ({ ids: new Set(), record: 'record' }),
        apply: (transaction, before) => (transaction.getMeta(KEY) as LeftOut | undefined) ?? before,
      },
      props: { decorations: (state) => decorationsOf(state) },
    }),
  ],
});

function decorationsOf(state: EditorState): DecorationSet {
  const { ids, record } = KEY.getState(state)!;
  if (ids.size === 0) return DecorationSet.empty;
  const { from, to } = state.selection;
  const found: Decoration[] = [];
  state.doc.descendants((node, position) => {
    if (node.isTextblock) return false;
    if (!ids.has(node.attrs.id as string)) return true;
    const end = position + node.nodeSize;
    const isOpen = from > position && to < end;
    found.push(
      Decoration.node(position, end, {
        class: isOpen ? 'left-out open' : 'left-out',
        'data-left-out': [firstWords(node), `left out for this ${record}`].filter(Boolean).join(' · '),
      }),
    );
    return isOpen;
  });
  return DecorationSet.create(state.doc, found);
}

const MOST_WORDS = 40;

/** What a section is known by: the beginning of its first text; nothing where that is hardly more than values. */
function firstWords(section: Node): string {
  let words = '';
  section.descendants((node) => {
    if (words === '' && node.isTextblock) words = node.textContent.trim();
    return words === '';
  });
  if (!/\p{L}{3}/u.test(words)) return '';
  return words.length > MOST_WORDS ? `${words.slice(0, MOST_WORDS).trimEnd()}…` : words;
}
