import type { Transaction } from '@tiptap/pm/state';
import { AddMarkStep, RemoveMarkStep, ReplaceStep } from '@tiptap/pm/transform';
import { JOINS, WORDS } from './commands';

/** What a change of the sheet is called in the history; `joins` where it goes on with the one before. */
export function historyWords(transaction: Transaction): { words: string; joins?: string } {
  const given = transaction.getMeta(WORDS) as string | undefined;
  if (given) return { words: given, joins: transaction.getMeta(JOINS) as string | undefined };
  const event = transaction.getMeta('uiEvent') as 'paste' | 'cut' | 'drop' | undefined;
  if (event) return { words: { paste: 'Pasted', cut: 'Cut', drop: 'Moved' }[event] };
  const { steps } = transaction;
  if (steps.every((step) => step instanceof AddMarkStep || step instanceof RemoveMarkStep))
    return { words: 'Look of text changed' };
  const lines = steps.map((step) => (step instanceof ReplaceStep ? writtenIn(step, transaction.before) : undefined));
  const [first] = lines;
  if (first === undefined || lines.some((line) => line === undefined)) return { words: 'Changed' };
  const isTyped = steps.some((step) => (step as ReplaceStep).slice.size > 0);
  const words = isTyped ? 'Typing' : 'Text deleted';
  return { words, joins: `${words} ${first}` };
}

/** The line that a step writes text in, by its id; undefined for every other step. */
function writtenIn({ from, to, slice }: ReplaceStep, doc: Transaction['before']): string | undefined {
  if (to > doc.content.size) return undefined;
  const $from = doc.resolve(from);
  const isText = slice.openStart === 0 && slice.openEnd === 0 && slice.content.content.every((node) => node.isText);
  return isText && $from.parent.isTextblock && $from.sameParent(doc.resolve(to))
    ? String($from.parent.attrs.id)
    : undefined;
}
