import { oneOf, shape, text as words, type ShapeOf } from '../../shape/shape';
import { brokenLines } from '../composed';
import { looksOf } from './looks';
import { unchanged, type InlineKind } from './kind';
import { marks, type Mark } from './marks';

/** Words as they are typed. */
export interface TextInline {
  type: 'text';
  text: string;
  marks?: Mark[];
}

const textShape: ShapeOf<TextInline> = shape({
  type: oneOf(['text']).required(),
  text: words(10_000).min(1).required(),
  marks: marks(),
}).required();

export const text: InlineKind<TextInline> = {
  shape: textShape,
  wordingShape: textShape,
  mapFormulas: unchanged,
  seen: (inline) => inline.text,
  compose: (inline) => brokenLines({ kind: 'text', text: inline.text, ...looksOf(inline.marks) }),
};
