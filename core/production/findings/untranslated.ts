import type { WordingGap } from '../../template/assemble';
import type { Edition } from '../../template/template';
import type { PrintedValue } from '../composition';
import type { Finding } from './finding';

/** Words that an edition does not say yet, or said before their source was changed. */
export function untranslated(
  gaps: readonly WordingGap[],
  edition: Edition,
  values: Readonly<Record<string, PrintedValue>>,
): Finding {
  const count = (kind: WordingGap['kind']) => gaps.filter((gap) => gap.kind === kind).length;
  const parts = [
    count('missing') > 0 && `${counted(count('missing'), 'block')} printed in the first edition’s words`,
    count('outdated') > 0 && `${counted(count('outdated'), 'translation')} older than the text it translates`,
  ].filter(Boolean);
  return {
    id: `words ${edition.id}`,
    severity: 'warns',
    title: 'Not fully translated',
    sentence: `In the edition “${edition.label}”: ${parts.join(', and ')}.`,
    block: gaps[0]!.block,
    values: Object.keys(values).filter((key) => gaps.some(({ block }) => values[key]!.block === block)),
  };
}

const counted = (count: number, what: string): string => (count === 1 ? `one ${what}` : `${count} ${what}s`);
