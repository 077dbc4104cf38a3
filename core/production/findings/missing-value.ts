import { sentence, type BlankValue } from '../../formula/value';
import type { Finding } from './finding';

/** A value that is printed and is blank. `record`: what the record is called by its type. */
export function missingValue(
  value: BlankValue,
  record: string,
  at: { block: string; key: string; workings?: string },
): Finding {
  const { cause, lacks, place, path } = value;
  return {
    id: `missing ${path ?? at.key}`,
    severity: 'stops',
    title: sentence(lacks === undefined ? cause : `no ${lacks}`),
    sentence: `${sentence(place ? `${place}: ${cause}` : cause)}, but it is printed here. Set it on the ${record}.`,
    block: at.block,
    values: [at.key],
    path,
    workings: at.workings,
  };
}
