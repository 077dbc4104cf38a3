import type { Node } from '@tiptap/pm/model';
import { NodeSelection, TextSelection, type Command, type EditorState, type Transaction } from '@tiptap/pm/state';
import { WORDS } from './commands';

/** What is looked for. */
export interface Search {
  words: string;
  /** In formulas and in the texts of computed blocks, too. */
  inFormulas: boolean;
}

/** A place of the sheet that has the words: in its text, or in an attribute of a part. */
export type Match = { is: 'text'; from: number; to: number } | { is: 'attribute'; position: number; name: string };

/** Attributes that hold words or formulas; those of tables and totals hold them deeper inside. */
const WRITTEN = new Set([
  'formula', 'list', 'filter', 'when', 'note', 'label', 'date', 'alt', 'empty', 'payee', 'iban', 'amount', 'reference', 'columns', 'rows',
  'groups', 'sort', 'bundles',
]); // prettier-ignore
/** Words inside of those that are not written by anybody. */
const NAMES = new Set(['id', 'align', 'width', 'format', 'emphasis', 'style']);

const pattern = (words: string) => new RegExp(words.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), 'giu');

/** Every place that has the words, whatever their case, in the order of the sheet. */
export function matchesOf(doc: Node, { words, inFormulas }: Search): Match[] {
  if (words === '') return [];
  const found: Match[] = [];
  doc.descendants((node, position) => {
    if (node.isTextblock) {
      // What is no text stands for one sign, so that places stay right.
      const text = node.textBetween(0, node.content.size, undefined, '\ufffc');
      for (const { index, 0: part } of text.matchAll(pattern(words)))
        found.push({ is: 'text', from: position + 1 + index, to: position + 1 + index + part.length });
    }
    if (!inFormulas) return;
    for (const [name, value] of Object.entries(node.attrs))
      if (WRITTEN.has(name) && hasWords(value, words)) found.push({ is: 'attribute', position, name });
  });
  return found.sort((one, other) => placeOf(one) - placeOf(other));
}

const placeOf = (match: Match): number => (match.is === 'text' ? match.from : match.position);

function hasWords(value: unknown, words: string): boolean {
  let has = false;
  changed(value, words, (text) => {
    has = true;
    return text;
  });
  return has;
}

/** The same value with every text that has the words changed. */
function changed(value: unknown, words: string, change: (text: string) => string): unknown {
  if (typeof value === 'string') return pattern(words).test(value) ? change(value) : value;
  if (Array.isArray(value)) return value.map((each: unknown) => changed(each, words, change));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([name, each]) => [name, NAMES.has(name) ? each : changed(each, words, change)]),
  );
}

/** Chooses a match. */
export function chooseMatch(match: Match): Command {
  return ({ tr, doc }, dispatch) => {
    const selection =
      match.is === 'text'
        ? TextSelection.create(doc, match.from, match.to)
        : NodeSelection.isSelectable(doc.nodeAt(match.position)!)
          ? NodeSelection.create(doc, match.position)
          : TextSelection.near(doc.resolve(match.position + 1));
    dispatch?.(tr.setSelection(selection).scrollIntoView());
    return true;
  };
}

/** Puts other words in place of those of some matches, in one step. */
export function replaceMatches(matches: readonly Match[], { words }: Search, by: string): Command {
  return (state, dispatch) => {
    if (matches.length === 0) return false;
    if (dispatch) {
      const told = matches.length === 1 ? `“${words}” replaced` : `“${words}” replaced ${matches.length} times`;
      dispatch(replaced(state, matches, words, by).setMeta(WORDS, told));
    }
    return true;
  };
}

function replaced({ tr, doc, schema }: EditorState, matches: readonly Match[], words: string, by: string): Transaction {
  // From the end, so that the places before stay where they are.
  for (const match of [...matches].reverse()) {
    if (match.is === 'attribute') {
      const value = changed(doc.nodeAt(match.position)!.attrs[match.name], words, (text) =>
        text.replace(pattern(words), () => by),
      );
      tr.setNodeAttribute(match.position, match.name, value);
    } else if (by === '') tr.delete(match.from, match.to);
    else tr.replaceWith(match.from, match.to, schema.text(by, doc.resolve(match.from + 1).marks()));
  }
  return tr;
}
