/** A record as the store keeps it. */
export type Body = Record<string, unknown>;

/** Tells whether a record passes a `$filter`. `related` reads a path such as `account/name`. */
export type Predicate = (read: (path: string) => unknown) => boolean;

/** A query that cannot be read. */
export class QueryError extends Error {}

const TOKEN = /\s*('(?:[^']|'')*'|\d{4}-\d{2}-\d{2}|-?\d+(?:\.\d+)?|[A-Za-z_][\w/]*|[(),])/y;

/**
 * Compiles the subset of OData `$filter` that the stand-in speaks: eq ne gt ge lt le in, and or not, contains,
 * startswith, tolower, brackets, texts, numbers, dates, true, false, null.
 */
export function compileFilter(source: string): Predicate {
  const tokens = tokenize(source);
  let at = 0;
  const peek = () => tokens[at];
  const take = (expected?: string) => {
    const token = tokens[at++];
    if (token === undefined || (expected && token !== expected))
      throw new QueryError(`$filter: ${expected ?? 'more'} was expected.`);
    return token;
  };

  const either = (): Predicate => {
    let left = both();
    while (peek() === 'or') {
      take();
      const [one, other] = [left, both()];
      left = (read) => one(read) || other(read);
    }
    return left;
  };
  const both = (): Predicate => {
    let left = negation();
    while (peek() === 'and') {
      take();
      const [one, other] = [left, negation()];
      left = (read) => one(read) && other(read);
    }
    return left;
  };
  const negation = (): Predicate => {
    if (peek() !== 'not') return comparison();
    take();
    const inner = negation();
    return (read) => !inner(read);
  };
  const comparison = (): Predicate => {
    if (peek() === '(') {
      take();
      const inner = either();
      take(')');
      return inner;
    }
    if (peek() === 'contains' || peek() === 'startswith') {
      const test = take();
      take('(');
      const left = operand();
      take(',');
      const right = operand();
      take(')');
      return (read) => {
        const [text, part] = [String(left(read) ?? ''), String(right(read) ?? '')];
        return test === 'contains' ? text.includes(part) : text.startsWith(part);
      };
    }
    const left = operand();
    const operator = take();
    if (operator === 'in') {
      take('(');
      const values = [operand()];
      while (peek() === ',') {
        take();
        values.push(operand());
      }
      take(')');
      return (read) => values.some((value) => compare(left(read), value(read)) === 0);
    }
    const right = operand();
    return compareBy(operator, left, right);
  };
  const operand = (): ((read: (path: string) => unknown) => unknown) => {
    const token = take();
    if (token === 'tolower') {
      take('(');
      const inner = operand();
      take(')');
      return (read) => String(inner(read) ?? '').toLowerCase();
    }
    if (token.startsWith("'")) return () => token.slice(1, -1).replaceAll("''", "'");
    if (token === 'null') return () => null;
    if (token === 'true' || token === 'false') return () => token === 'true';
    if (/^[A-Za-z_]/.test(token)) return (read) => read(token);
    return () => token;
  };

  const predicate = either();
  if (at < tokens.length) throw new QueryError(`$filter: “${tokens[at]}” was not expected.`);
  return predicate;
}

function tokenize(source: string): string[] {
  const tokens: string[] = [];
  TOKEN.lastIndex = 0;
  while (TOKEN.lastIndex < source.trimEnd().length) {
    const match = TOKEN.exec(source);
    if (!match) throw new QueryError('$filter cannot be read.');
    tokens.push(match[1]!);
  }
  return tokens;
}

function compareBy(
  operator: string,
  left: (read: (path: string) => unknown) => unknown,
  right: typeof left,
): Predicate {
  const holds: Record<string, (sign: number) => boolean> = {
    eq: (sign) => sign === 0,
    ne: (sign) => sign !== 0,
    gt: (sign) => sign > 0,
    ge: (sign) => sign >= 0,
    lt: (sign) => sign < 0,
    le: (sign) => sign <= 0,
  };
  const test = holds[operator];
  if (!test) throw new QueryError(`$filter: there is no operator “${operator}”.`);
  return (read) => test(compare(left(read), right(read)));
}

const DECIMAL = /^-?\d+(\.\d+)?$/;

/** Order of two values: numbers by size, everything else as text; null before all. */
export function compare(left: unknown, right: unknown): number {
  if (left === null || left === undefined) return right === null || right === undefined ? 0 : -1;
  if (right === null || right === undefined) return 1;
  const [one, other] = [String(left), String(right)];
  if (DECIMAL.test(one) && DECIMAL.test(other)) return Number(one) - Number(other);
  return one < other ? -1 : one > other ? 1 : 0;
}
