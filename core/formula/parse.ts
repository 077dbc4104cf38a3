import type { SyntaxNode } from '@lezer/common';
import { Decimal, NumberTooGreat } from '../money/decimal';
import { FormulaError, type BinaryOperator, type Expression } from './ast';
import { parser } from './formula.parser';

/** Bounds that no sensible formula reaches; beyond them a formula error, never a full stack or a hang. */
const LONGEST = 20_000;
const DEEPEST = 500;
const MOST_OPERATORS = 800;
const OPERATOR = /[-+*/^&=<>?%]/;

const parsed = new Map<string, Expression>();

/**
 * Reads a formula. The same text gives the same (shared, never changed) tree.
 * @throws FormulaError with the position of the first thing that cannot be read.
 */
export function parseFormula(source: string): Expression {
  const known = parsed.get(source);
  if (known) return known;
  if (source.length > LONGEST)
    throw new FormulaError(`A formula may have ${LONGEST} characters at most.`, LONGEST, source.length);
  refuseDepth(source);
  const tree = parser.parse(source);
  refuseErrors(tree.cursor(), source);
  const root = tree.topNode.firstChild;
  if (!root) throw new FormulaError('The formula is empty.', 0, source.length);
  const expression = build(root, source, 0);
  if (parsed.size > 5_000) parsed.clear();
  parsed.set(source, expression);
  return expression;
}

/** The parser gives up on very deep brackets and very long chains of operators without saying so; this says so. */
function refuseDepth(source: string): void {
  let operators = 0;
  let depth = 0;
  let quoted = false;
  for (let at = 0; at < source.length; at++) {
    const character = source[at]!;
    if (character === '"') quoted = !quoted;
    if (quoted) continue;
    if (character === '(' || character === '[') depth++;
    if (character === ')' || character === ']') depth--;
    if (depth > DEEPEST) throw tooDeep(at, at + 1);
    if (OPERATOR.test(character)) operators++;
    if (operators > MOST_OPERATORS)
      throw new FormulaError(`A formula may have ${MOST_OPERATORS} operators at most.`, at, at + 1);
  }
}

function tooDeep(from: number, to: number): FormulaError {
  return new FormulaError(`The formula is nested too deeply (more than ${DEEPEST} levels).`, from, to);
}

function refuseErrors(cursor: ReturnType<ReturnType<typeof parser.parse>['cursor']>, source: string): void {
  do {
    if (!cursor.type.isError) continue;
    const { from } = cursor;
    const to = Math.max(cursor.to, Math.min(from + 1, source.length));
    const rest = source.slice(from).trimStart();
    if (!rest) throw new FormulaError('The formula ends too early.', from, source.length);
    if (rest.startsWith('"')) throw new FormulaError('A text is not closed: add a quotation mark.', from, to);
    throw new FormulaError(`“${rest.slice(0, 12)}” was not expected here.`, from, to);
  } while (cursor.next());
}

/** Turns a node of the grammar into the tree that is evaluated; brackets leave no trace but their grouping. */
function build(node: SyntaxNode, source: string, depth: number): Expression {
  const { from, to } = node;
  if (depth > DEEPEST) throw tooDeep(from, to);
  const text = source.slice(from, to);
  const child = (position: number) => build(childrenOf(node)[position]!, source, depth + 1);

  switch (node.name) {
    case 'Number':
      return text.endsWith('%')
        ? { kind: 'percent', value: literal(text.slice(0, -1), node).shifted(-2), from, to }
        : { kind: 'number', value: literal(text, node), from, to };
    case 'Text':
      return { kind: 'text', value: text.slice(1, -1).replaceAll('""', '"'), from, to };
    case 'Boolean':
      return { kind: 'boolean', value: text.toLowerCase() === 'true', from, to };
    case 'Name':
      return { kind: 'name', name: plainName(text), from, to };
    case 'Group':
      return child(0);
    case 'Member':
      return { kind: 'member', object: child(0), name: fieldName(node, source), from, to };
    case 'Filter':
      return { kind: 'filter', list: child(0), condition: child(1), from, to };
    case 'Call': {
      const [name, ...args] = childrenOf(node);
      return {
        kind: 'call',
        name: source.slice(name!.from, name!.to).toUpperCase(),
        arguments: args.map((argument) => build(argument, source, depth + 1)),
        from,
        to,
      };
    }
    case 'Negative':
      return { kind: 'negative', operand: child(0), from, to };
    case 'Percentage':
      return { kind: 'percentage', operand: child(0), from, to };
    case 'Not':
      return { kind: 'not', operand: child(1), from, to };
    case 'OrElse':
      return { kind: 'binary', operator: '??', left: child(0), right: child(2), from, to };
    case 'Binary':
      return buildBinary(node, source, depth);
    default:
      throw new FormulaError(`“${text}” was not expected here.`, from, to);
  }
}

function literal(text: string, { from, to }: SyntaxNode): Decimal {
  try {
    return Decimal.of(text);
  } catch (problem) {
    if (problem instanceof NumberTooGreat) throw new FormulaError(problem.message, from, to);
    throw problem;
  }
}

function buildBinary(node: SyntaxNode, source: string, depth: number): Expression {
  const children = childrenOf(node);
  const left = children[0]!;
  const right = children.at(-1)!;
  const operator = source
    .slice(left.to, right.from)
    .replace(/[()\s\u00a0]/g, '')
    .toLowerCase();
  return {
    kind: 'binary',
    operator: operator as BinaryOperator,
    left: build(left, source, depth + 1),
    right: build(right, source, depth + 1),
    from: node.from,
    to: node.to,
  };
}

function childrenOf(node: SyntaxNode): SyntaxNode[] {
  const children: SyntaxNode[] = [];
  for (let child = node.firstChild; child; child = child.nextSibling) children.push(child);
  return children;
}

function fieldName(member: SyntaxNode, source: string): string {
  const node = member.lastChild!;
  return plainName(source.slice(node.from, node.to));
}

function plainName(text: string): string {
  return text.startsWith('`') ? text.slice(1, -1) : text;
}
