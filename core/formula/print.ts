import { NEGATIVE_RANK, NOT_RANK, PERCENTAGE_RANK, RANK, SINGLE_RANK, type Expression } from './ast';
import { wordTerm } from './words';

/** Text to print for a node in place of its formula text; undefined leaves the node as it is. */
export type Substitution = (node: Expression) => string | undefined;

const LOOKS: Readonly<Record<string, string>> = { '*': '×', '/': '÷', '-': '−' };

const printed = new WeakMap<Expression, string>();

/**
 * Prints a formula in its canonical form, with as few brackets as its meaning allows:
 * parsing the result gives the same tree.
 */
export function printFormula(expression: Expression): string {
  let text = printed.get(expression);
  if (text === undefined) {
    text = print(
      expression,
      0,
      () => undefined,
      (operator) => operator,
    );
    printed.set(expression, text);
  }
  return text;
}

/** Prints a formula for reading, values in place of names: `12 × 48.50 EUR × (1 − 10 %)`. */
export function printForReading(expression: Expression, substitute: Substitution): string {
  return print(expression, 0, substitute, (operator) => LOOKS[operator] ?? operator);
}

function print(
  node: Expression,
  outerRank: number,
  substitute: Substitution,
  look: (operator: string) => string,
): string {
  const replaced = substitute(node);
  if (replaced !== undefined) return replaced;
  const inner = (child: Expression, rank: number) => print(child, rank, substitute, look);
  const bracketed = (text: string, rank: number) => (rank < outerRank ? `(${text})` : text);

  switch (node.kind) {
    case 'number':
      return node.value.toFixed();
    case 'percent':
      return `${node.value.shifted(2).toFixed()}%`;
    case 'text':
      return `"${node.value.replaceAll('"', '""')}"`;
    case 'boolean':
      return node.value ? 'true' : 'false';
    case 'name':
      return printName(node.name, wordTerm(node.name) !== -1);
    case 'member':
      return `${inner(node.object, SINGLE_RANK)}.${printName(node.name, false)}`;
    case 'filter':
      return `${inner(node.list, SINGLE_RANK)}[${inner(node.condition, 0)}]`;
    case 'call':
      return `${node.name}(${node.arguments.map((argument) => inner(argument, 0)).join(', ')})`;
    case 'negative':
      return bracketed(`${look('-')}${inner(node.operand, NEGATIVE_RANK)}`, NEGATIVE_RANK);
    case 'percentage':
      return bracketed(`${inner(node.operand, PERCENTAGE_RANK)} %`, PERCENTAGE_RANK);
    case 'not':
      return bracketed(`not ${inner(node.operand, NOT_RANK)}`, NOT_RANK);
    case 'binary': {
      const rank = RANK[node.operator];
      const right = node.operator === '??' ? SINGLE_RANK : rank + 1;
      return bracketed(`${inner(node.left, rank)} ${look(node.operator)} ${inner(node.right, right)}`, rank);
    }
  }
}

function printName(name: string, isWord: boolean): string {
  return !isWord && /^[A-Za-z_][A-Za-z_0-9]*$/.test(name) ? name : `\`${name}\``;
}
