import type { Template } from '../../template/template';
import type { Finding } from './finding';

/** A rule of the template's own that does not hold. */
export function failedCheck({ id, severity, title, figure }: Template['checks'][number], sentence: string): Finding {
  return { id: `check ${id}`, severity, title, sentence, values: [], workings: figure };
}
