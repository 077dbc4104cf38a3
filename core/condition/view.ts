import type { Shape } from '../formula/type';
import { readCondition, type ReadCondition } from './read';
import { conditionSentence } from './sentence';
import type { Subjects } from './subjects';

/** A condition as a form shows it: its rows, or why it can only be shown as its formula; and in words, to go on after "when". */
export type ConditionView = ReadCondition & { sentence: string };

/** How a form shows a condition. `item`: what is in scope where it stands for each item of a list. */
export const conditionView = (source: string, subjects: Subjects, item?: Shape): ConditionView => ({
  ...readCondition(source),
  sentence: conditionSentence(source, subjects, item),
});
