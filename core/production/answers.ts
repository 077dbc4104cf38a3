import type { Value } from '../formula/value';
import { askField, askNamed, defaultAnswer, type Answer, type Ask } from '../template/asks';
import { typedFieldValue } from '../template/typed-value';
import type { DocumentChange, MadeChange } from './document-change';
import type { Finding } from './findings/finding';
import type { LostChange } from './with-changes';

/** Whether a change says what a template asks for. */
export const isAnswer = (change: DocumentChange): boolean =>
  change.type === 'value' && askNamed(change.path) !== undefined;

/**
 * What is said to everything that a template asks for: by a change for this document, else by the template's own formula. `evaluate`
 * gives what such a formula comes to.
 */
export function answersOf(
  asks: readonly Ask[],
  changes: readonly MadeChange[],
  evaluate: (formula: string) => Value,
): { answers: Answer[]; lost: LostChange[] } {
  const lost: LostChange[] = [];
  const given = new Map<string, Answer>();
  for (const { id, change } of changes) {
    if (change.type !== 'value') continue;
    const ask = asks.find(({ name }) => name === askNamed(change.path));
    const read = ask && typedFieldValue(askField(ask), change.value.trim());
    if (!ask || !read) lost.push({ id, sentence: `“${change.path}” is not asked for any more. Take the change back.` });
    else if ('fault' in read) lost.push({ id, sentence: read.fault });
    else given.set(ask.name, { ask, value: read.value, given: true });
  }
  const answers = asks.map((ask): Answer => {
    const said = given.get(ask.name);
    if (said) return said;
    const value = ask.default === undefined ? null : defaultAnswer(ask, evaluate(ask.default));
    return { ask, value, given: false };
  });
  return { answers, lost };
}

/** What is asked for, must be said, and is not. */
export const unanswered = ({ ask: { name, label, optional }, value }: Answer): Finding[] =>
  value !== null || optional
    ? []
    : [
        {
          id: `missing ask.${name}`,
          severity: 'stops',
          title: `${label} is not filled in`,
          sentence: 'It is asked for with each document of this template. Fill it in here, or under “This document”.',
          values: [],
          path: `ask.${name}`,
        },
      ];
