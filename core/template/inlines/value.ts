import { VALUE_FORMATS, type ValueFormat } from '../../formula/value-format';
import { boolean, formula, oneOf, shape } from '../../shape/shape';
import { attrs } from '../node';
import type { InlineKind } from './kind';
import { looksOf } from './looks';
import { marks, type Mark } from './marks';

/** What stands for a value that may be blank and is: nothing, or a ruled space to write on by pen. */
export const BLANK_AS = ['ruledSpace'] as const;
export type BlankAs = (typeof BLANK_AS)[number];

/** What a formula gives, in the words of the edition. */
export interface ValueInline {
  type: 'value';
  attrs: { id: string; formula: string; format?: ValueFormat; mayBeBlank?: boolean; blankAs?: BlankAs };
  marks?: Mark[];
}

/** A value in a translation: it is named by its id, its formula stays with the source. */
export interface ValueWording {
  type: 'value';
  attrs: { id: string };
}

export const value: InlineKind<ValueInline, ValueWording> = {
  shape: shape({
    type: oneOf(['value']).required(),
    attrs: attrs({
      formula: formula().required(),
      format: oneOf(VALUE_FORMATS),
      mayBeBlank: boolean(),
      blankAs: oneOf(BLANK_AS),
    }),
    marks: marks(),
  }).required(),
  wordingShape: shape({ type: oneOf(['value']).required(), attrs: attrs({}) }).required(),
  mapFormulas: (inline, change) => ({
    ...inline,
    attrs: { ...inline.attrs, formula: change.formula(inline.attrs.formula) },
  }),
  seen: ({ attrs: { id } }) => [id],
  compose({ attrs: own, marks: ownMarks }, composer, block, row) {
    const runs = composer.print({ ...own, block, row });
    return runs.map((run) => (run.kind === 'text' ? { ...run, ...looksOf(ownMarks) } : run));
  },
};
