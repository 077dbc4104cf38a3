import type { Decimal } from '../money/decimal';

/** Operators between two operands, loosest last. */
export type BinaryOperator =
  '^' | '*' | '/' | '+' | '-' | '&' | '=' | '<>' | '<' | '<=' | '>' | '>=' | 'in' | 'and' | 'or' | '??';

/** Where a node stands in the formula's text: character offsets, end exclusive. */
interface Placed {
  from: number;
  to: number;
}

export type Expression =
  | ({ kind: 'number'; value: Decimal } & Placed)
  | ({ kind: 'percent'; value: Decimal } & Placed)
  | ({ kind: 'text'; value: string } & Placed)
  | ({ kind: 'boolean'; value: boolean } & Placed)
  | ({ kind: 'name'; name: string } & Placed)
  | ({ kind: 'member'; object: Expression; name: string } & Placed)
  | ({ kind: 'filter'; list: Expression; condition: Expression } & Placed)
  | ({ kind: 'call'; name: string; arguments: Expression[] } & Placed)
  | ({ kind: 'negative'; operand: Expression } & Placed)
  | ({ kind: 'percentage'; operand: Expression } & Placed)
  | ({ kind: 'not'; operand: Expression } & Placed)
  | ({ kind: 'binary'; operator: BinaryOperator; left: Expression; right: Expression } & Placed);

/** How tightly each operator binds; a higher rank binds tighter. The ranks of the grammar, for the printer. */
export const RANK: Readonly<Record<BinaryOperator, number>> = {
  or: 1, and: 2, '=': 4, '<>': 4, '<': 4, '<=': 4, '>': 4, '>=': 4, in: 4,
  '&': 5, '+': 6, '-': 6, '*': 7, '/': 7, '^': 8, '??': 11,
}; // prettier-ignore
export const NOT_RANK = 3;
export const PERCENTAGE_RANK = 9;
export const NEGATIVE_RANK = 10;
export const SINGLE_RANK = 12;

/** A formula that cannot be read or does not make sense, with the place where it goes wrong. */
export class FormulaError extends Error {
  constructor(
    message: string,
    readonly from: number,
    readonly to: number,
  ) {
    super(message);
    this.name = 'FormulaError';
  }
}
