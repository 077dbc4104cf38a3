import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { generateParser } from '../../tools/grammar';
import { FormulaError, type Expression } from './ast';
import { parseFormula } from './parse';
import { printFormula } from './print';

/** The tree without its positions. */
function shape(node: Expression): unknown {
  return JSON.parse(
    JSON.stringify(node, (key, value: unknown) => (key === 'from' || key === 'to' ? undefined : value)),
  );
}

describe('ranks', () => {
  it.each([
    ['-2^2', '(-2)^2'],
    ['2^3^2', '(2^3)^2'],
    ['1 - discount ?? 0%', '1 - (discount ?? 0%)'],
    ['quantity * unit_price * (1 - discount ?? 0%)', '(quantity * unit_price) * (1 - (discount ?? 0%))'],
    ['"crane" in deal.site_works and not a = b', '("crane" in deal.site_works) and (not (a = b))'],
    ['a or b and c', 'a or (b and c)'],
    ['"Q-" & 1 + 2', '"Q-" & (1 + 2)'],
    ['a & b = c', '(a & b) = c'],
    ['-x.y[z]', '-((x.y)[z])'],
  ])('%s reads as %s', (formula, bracketed) => {
    expect(shape(parseFormula(formula))).toEqual(shape(parseFormula(bracketed)));
  });

  it('takes operators in words and function names in any case', () => {
    expect(shape(parseFormula('NOT a AND Sum(b) Or FALSE'))).toEqual(shape(parseFormula('not a and SUM(b) or false')));
  });

  it('doubles quotation marks inside a text', () => {
    expect(parseFormula('"say ""yes"""')).toMatchObject({ kind: 'text', value: 'say "yes"' });
  });
});

describe('what cannot be read', () => {
  it.each([
    ['1 +', 3],
    ['(a', 2],
    ['a b', 2],
    ['"open', 0],
    ['lines[', 6],
    ['', 0],
  ])('%j is a formula error at %i', (formula, position) => {
    const read = () => parseFormula(formula);
    expect(read).toThrow(FormulaError);
    try {
      read();
    } catch (problem) {
      expect((problem as FormulaError).from).toBe(position);
    }
  });

  it('refuses deep nesting and endless formulas with a sentence', () => {
    expect(() => parseFormula(`${'('.repeat(4_000)}1${')'.repeat(4_000)}`)).toThrow(/nested too deeply/);
    expect(() => parseFormula(`1${' + 1'.repeat(6_000)}`)).toThrow(/at most/);
    expect(() => parseFormula('1+'.repeat(9_000) + '1')).toThrow(/800 operators at most/);
    expect(() => parseFormula('1+'.repeat(700) + '1')).toThrow(/nested too deeply/);
  });

  it.each(['+', 'a.', 'a b ', 'a ?? ', '1+', 'a[b]', 'not ', '-', '#@!', 'IF(', '"', '%'])(
    'reads or refuses a long run of %j in time',
    (piece) => {
      // Linear in its length: the bound is wide, a quadratic reader would be far beyond it.
      const start = performance.now();
      const read = () => parseFormula(piece.repeat(Math.floor(19_000 / piece.length)));
      try {
        read();
      } catch (problem) {
        expect(problem).toBeInstanceOf(FormulaError);
      }
      expect(performance.now() - start).toBeLessThan(3_000);
    },
  );

  it('is never anything but a formula error, whatever is typed', () => {
    const pieces = fc.constantFrom(
      'deal',
      '.',
      'lines',
      '[',
      ']',
      '(',
      ')',
      '"',
      '`',
      '??',
      '%',
      '-',
      '+',
      'in',
      'not',
      ',',
      '1.5',
      ' ',
      '=',
      '&',
      'é',
      '\n',
      '🌱',
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(pieces, { maxLength: 40 }).map((parts) => parts.join('')),
        ),
        (typed) => {
          try {
            parseFormula(typed);
          } catch (problem) {
            expect(problem).toBeInstanceOf(FormulaError);
            const { from, to } = problem as FormulaError;
            expect(from).toBeLessThanOrEqual(typed.length);
            expect(to).toBeLessThanOrEqual(typed.length);
          }
        },
      ),
      { numRuns: 600 },
    );
  });
});

describe('the printer', () => {
  const name = fc.constantFrom('deal', 'net', 'unit price', 'not', 'x1');
  const expression = fc.letrec<{ node: string }>((tie) => ({
    node: fc.oneof(
      { maxDepth: 5, withCrossShrink: true },
      name.map((each) => `\`${each}\``),
      fc.nat(999).map(String),
      fc.nat(99).map((each) => `${each}%`),
      fc.constantFrom('"text"', '"say ""yes"""', 'true', 'FALSE'),
      fc
        .tuple(
          tie('node'),
          fc.constantFrom('+', '-', '*', '/', '^', '&', '=', '<>', '<=', 'in', 'and', 'or'),
          tie('node'),
        )
        .map((parts) => `(${parts.join(' ')})`),
      tie('node').map((inner) => `(-${inner})`),
      tie('node').map((inner) => `(${inner} %)`),
      tie('node').map((inner) => `(not ${inner})`),
      fc.tuple(tie('node'), tie('node')).map(([left, right]) => `((${left}) ?? (${right}))`),
      fc.tuple(tie('node'), name).map(([object, member]) => `(${object}).\`${member}\``),
      fc.tuple(tie('node'), tie('node')).map(([list, condition]) => `(${list})[${condition}]`),
      fc.array(tie('node'), { maxLength: 3 }).map((args) => `IF(${args.join(', ')})`),
    ),
  })).node;

  it('prints what reads back as the same tree', () => {
    fc.assert(
      fc.property(expression, (source) => {
        const tree = parseFormula(source);
        expect(shape(parseFormula(printFormula(tree)))).toEqual(shape(tree));
      }),
      { numRuns: 500 },
    );
  });

  it('prints no bracket that the ranks make idle', () => {
    expect(printFormula(parseFormula('((a * b) + (c)) - (d ?? (0%))'))).toBe('a * b + c - d ?? 0%');
    expect(printFormula(parseFormula('a - (b - c)'))).toBe('a - (b - c)');
  });
});

it('is generated from the grammar as it stands', () => {
  const { parser, terms } = generateParser();
  const file = (name: string) => readFileSync(new URL(name, import.meta.url), 'utf8');
  expect(file('formula.parser.ts')).toBe(parser.replace('"./formula.grammar.terms"', '"./formula.parser.terms"'));
  expect(file('formula.parser.terms.ts')).toBe(terms);
});
