import ts from 'typescript';

/** One small change of a source: an operator, a bound, a rounding, a sign. */
export interface Mutant {
  /** Offset in the source, and the line it stands in, counted from 1. */
  from: number;
  to: number;
  line: number;
  was: string;
  is: string;
}

const OPERATORS: Readonly<Record<string, string>> = {
  '+': '-', '-': '+', '*': '/', '/': '*', '%': '*', '**': '*', '<': '<=', '<=': '<', '>': '>=', '>=': '>',
  '===': '!==', '!==': '===', '&&': '||', '||': '&&', '??': '&&', '+=': '-=', '-=': '+=', '*=': '/=', '/=': '*=',
}; // prettier-ignore

/** Words that decide a number: a rounding and its direction. */
const WORDS: Readonly<Record<string, string>> = {
  'half-away': 'half-even', 'half-even': 'half-away', up: 'down', down: 'up', ceiling: 'floor', floor: 'ceiling',
}; // prettier-ignore

const CALLS: Readonly<Record<string, string>> = { plus: 'minus', minus: 'plus', max: 'min', min: 'max', floor: 'ceil' };

/**
 * Every mutant of a source, or of those of its functions and methods that are named. Types, messages and imports are left
 * alone: they change no number.
 */
export function mutantsOf(source: string, functions?: readonly string[]): Mutant[] {
  const file = ts.createSourceFile('source.ts', source, ts.ScriptTarget.ES2022, true);
  const mutants: Mutant[] = [];
  const add = (from: number, to: number, is: string) => {
    const { line } = file.getLineAndCharacterOfPosition(from);
    mutants.push({ from, to, line: line + 1, was: source.slice(from, to), is });
  };
  const visit = (node: ts.Node): void => {
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node) || ts.isInterfaceDeclaration(node)) return;
    if (ts.isBinaryExpression(node)) {
      const { operatorToken } = node;
      const flipped = OPERATORS[operatorToken.getText(file)];
      if (flipped) add(operatorToken.getStart(file), operatorToken.end, flipped);
    } else if (ts.isPrefixUnaryExpression(node)) {
      const sign = source[node.getStart(file)];
      if (sign === '-' || sign === '!') add(node.getStart(file), node.getStart(file) + 1, '');
    } else if (ts.isNumericLiteral(node)) add(node.getStart(file), node.end, String(Number(node.text) + 1));
    else if (ts.isBigIntLiteral(node)) add(node.getStart(file), node.end, `${BigInt(node.text.slice(0, -1)) + 1n}n`);
    else if (node.kind === ts.SyntaxKind.TrueKeyword) add(node.getStart(file), node.end, 'false');
    else if (node.kind === ts.SyntaxKind.FalseKeyword) add(node.getStart(file), node.end, 'true');
    else if (ts.isStringLiteral(node) && WORDS[node.text] && !ts.isCaseClause(node.parent)) {
      add(node.getStart(file), node.end, `'${WORDS[node.text]!}'`);
    } else if (ts.isPropertyAccessExpression(node) && CALLS[node.name.text] && ts.isCallExpression(node.parent)) {
      add(node.name.getStart(file), node.name.end, CALLS[node.name.text]!);
    }
    ts.forEachChild(node, visit);
  };
  const visitNamed = (node: ts.Node): void => {
    const isNamed =
      (ts.isFunctionDeclaration(node) || ts.isMethodDeclaration(node)) &&
      functions!.includes(node.name?.getText(file) ?? '');
    if (isNamed) visit(node);
    else ts.forEachChild(node, visitNamed);
  };
  if (functions) visitNamed(file);
  else visit(file);
  return mutants;
}
