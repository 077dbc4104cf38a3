import type { Row } from '../formula/row';
import type { Cell } from './cell';
import type { Scope } from './names';

/** What a sheet keeps with each of its rows, at hand without a search. */
class KeptWithRow {
  /** What the row's bare names mean. */
  scope?: Scope;
  /** The row's own figures, by their position among the list's. */
  readonly cells: (Cell | undefined)[] = [];
}

/** What the sheet keeps with a row; made where there is nothing yet. */
export function keptWith(row: Row): KeptWithRow {
  if (row.kept instanceof KeptWithRow) return row.kept;
  const kept = new KeptWithRow();
  row.kept = kept;
  return kept;
}
