import type { Expression } from './ast';
import type { Figure } from './figure';
import type { Row } from './row';
import type { Value } from './value';

/**
 * One evaluation: of a figure, or of a formula on the page. It keeps what it read, so that it can be explained
 * (inputs), compared later (reads) and evaluated only once.
 */
export interface Cell {
  /** `subtotal`, `net of deal.lines{L-3}`, or the id of the value on the page. */
  id: string;
  formula: string;
  expression?: Expression;
  figure?: Figure;
  /** The item in scope. */
  row?: Row;
  state: 'evaluating' | 'done';
  value: Value;
  /** Value of each path, filter and "or else" of the formula, for its workings. */
  inputs: Map<Expression, { value: Value; source: InputSource }>;
  /** Fields read directly: path → canonical text. */
  reads: Map<string, string>;
  /** Figures read on the way. */
  through: Set<Cell>;
  /** Value before the figure's declared rounding, where rounding changed it. */
  beforeRounding?: Value;
}

/** Where an input of a figure came from. */
export type InputSource =
  { kind: 'field'; path: string; label: string } | { kind: 'figure'; cell: Cell } | { kind: 'computed' };

/** All fields that a cell read, itself and through other figures: path → canonical text. */
export function collectReads(cell: Cell, into: Map<string, string>, seen = new Set<Cell>()): void {
  if (seen.has(cell)) return;
  seen.add(cell);
  for (const [path, value] of cell.reads) into.set(path, value);
  for (const next of cell.through) collectReads(next, into, seen);
}
