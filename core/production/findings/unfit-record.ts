import type { Fits } from '../../template/template';
import type { Finding } from './finding';

/** A record that the template is not for. `sentence`: the template's own; `record`: what the record is called by its type. */
export const unfitRecord = (sentence: string, { severity = 'warns' }: Fits, record: string): Finding => ({
  id: 'unfit',
  severity,
  title: `Does not fit this ${record}`,
  sentence,
  values: [],
});
