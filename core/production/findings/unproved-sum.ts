import type { ColumnTotal } from '../../template/composer';
import type { Finding } from './finding';

/** A printed column that does not add up to its total, with the sentence that says how. */
export function unprovedSum({ column, label, workings, block }: ColumnTotal, contradiction: string): Finding {
  return {
    id: block === undefined ? `sum ${label}` : `printed ${block} ${column} ${label}`,
    severity: 'stops',
    of: 'template',
    title: 'A printed column does not add up',
    sentence: contradiction,
    block,
    values: [],
    workings,
  };
}
