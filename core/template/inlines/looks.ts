import type { Run } from '../composed';
import type { Mark } from './marks';

/** The looks of a run of text, by its marks. */
export function looksOf(marks: readonly Mark[] = []): Partial<Extract<Run, { kind: 'text' }>> {
  const looks: Partial<Extract<Run, { kind: 'text' }>> = {};
  for (const mark of marks) {
    if (mark.type === 'colour') looks.colour = mark.attrs.colour;
    else if (mark.type === 'link') looks.link = mark.attrs.href;
    else looks[mark.type] = true;
  }
  return looks;
}
