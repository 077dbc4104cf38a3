import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoSchema } from '../../tests/demo-snapshot';
import { NET_PRICES } from '../calculations/prices';
import { Checker, DOCUMENT_ROOT, type CheckContext } from './check';
import { checkSheet, refuseName } from './check-sheet';
import type { Figure, FigureSheet } from './figure';
import { renameFigure } from './rename';
import { typeInWords } from '../formula/type';

const context = (sheet: FigureSheet): CheckContext => ({
  sheet,
  schema: demoSchema,
  record: { type: 'Deal', root: 'deal' },
  roots: { document: DOCUMENT_ROOT },
});
const checker = new Checker(context(NET_PRICES.sheet));
const messages = (formula: string) => checker.formula(formula).diagnostics.map(({ message }) => message);
const figure = (name: string, formula: string, type: Figure['type'] = 'amount'): Figure => ({
  name,
  label: name,
  formula,
  type,
});

describe('what a formula gives', () => {
  it.each([
    ['SUM(lines[not optional].net)', 'money'],
    ['lines.net', 'a list of amounts'],
    ['lines[quantity > 2]', 'a list of line items'],
    ['deal.account.country', 'a text'],
    ['deal.amount / subtotal', 'a number'],
    ['document.issue_date + 30', 'a date'],
    ['tax_rows.base', 'a list of amounts'],
    ['FIRST(tax_rows).tax_rate', 'a percentage'],
    ['lines.discount ?? 0', 'unknown'],
    ['deal.discount_percent ?? 0', 'a percentage'],
    ['deal.discount_amount ?? 0', 'money'],
    ['IF(true, deal.amount, 0)', 'money'],
    ['GROUP(lines, section).section', 'a list of texts'],
    ['SCHEDULE(total, 3).amount', 'a list of amounts'],
    ['REGISTERED("invoice").date', 'a list of dates'],
    ['ROUND(12.5%, 2)', 'a percentage'],
    ['1 + 10%', 'a number'],
    ['not ISBLANK(deal.contact)', 'yes or no'],
  ])('%s is %s', (formula, words) => {
    expect(typeInWords(checker.formula(formula).type)).toBe(words);
  });
});

describe('what is wrong, with what to do', () => {
  it.each([
    ['deal.acount.country', 'The deal has no “acount”; did you mean account?'],
    ['deal.account.Contry', 'The account has no “Contry”; did you mean country?'],
    ['SUM(lines.nett)', 'The line item has no “nett”; did you mean net?'],
    ['lines[quantty > 1]', 'There is no field and no figure “quantty”; did you mean quantity?'],
    ['subtotl', 'There is no field and no figure “subtotl”; did you mean subtotal?'],
    ['order_number', 'There is no field and no figure “order_number”; did you mean deal.order_number?'],
    ['zzzzzzzz', 'There is no field and no figure “zzzzzzzz”.'],
    ['SUMM(lines.net)', 'There is no function SUMM; did you mean SUM?'],
    ['round', 'ROUND is a function: write ROUND(…).'],
    ['ROUND(1, 2, 3)', 'ROUND takes (value, digits?); it was given 3.'],
    ['ROUND(deal.name)', 'ROUND takes a number or money as its “value”, not a text.'],
    ['lines.net * 2', 'This is a list of amounts, and one value is needed: write SUM(lines.net) for their sum.'],
    ['"to " & lines.name', 'This is a list of texts, and one value is needed: write FIRST(lines.name).'],
    ['deal & "x"', 'A deal cannot be joined to a text; choose one of its fields, such as “.name”.'],
    ['deal.amount + 5', 'A number cannot be added to money.'],
    ['deal.amount * deal.amount', 'Money cannot be multiplied by money.'],
    ['5 / 0', 'This divides by zero.'],
    ['deal.name > 5', 'A text is never equal to a number.'],
    ['deal.heating = "pipes"', 'This is never “pipes”: it can be “none”, “pipe”, “air”, or “floor”.'],
    [
      '"cranes" in deal.site_works',
      'This is never “cranes”: it can be “groundwork”, “electrics”, “water”, or “crane”.',
    ],
    ['IF(deal.amount, 1, 2)', 'IF takes yes or no as its “condition”, not money.'],
    ['not deal.amount', 'A condition is yes or no, and this is money; compare it with something.'],
    ['deal.name[true]', 'Only a list can be filtered, and this is a text.'],
    ['deal.amount.currency', 'Money has no fields, so “.currency” leads nowhere.'],
    ['deal.discount_percent ?? "none"', 'Before ?? stands a percentage, after it a text: the two must be of one kind.'],
    ['COUNT(lines.name)', 'COUNT passes over texts; to count them, write COUNTA.'],
    ['SUM(lines.name)', 'SUM takes numbers, money, and lists of them as its “values”, not a list of texts.'],
    ['figures.totl', 'There is no figure “totl”; did you mean total?'],
    ['this.net', '“this” is the item that a figure of a line or of a list’s row is computed for; here there is none.'],
    ['SUM(lines', 'The formula ends too early.'],
  ])('%s: %s', (formula, message) => {
    expect(messages(formula)).toEqual([message]);
  });

  it('stands at its place, with what to put there', () => {
    expect(checker.formula('1 + deal.acount.name').diagnostics).toEqual([
      {
        from: 9,
        to: 15,
        message: 'The deal has no “acount”; did you mean account?',
        fix: 'account',
        missing: { owner: 'deal', name: 'acount' },
      },
    ]);
  });

  it('a comparison of money with a number is understood; so is a condition on a choice that can be held', () => {
    expect(messages('deal.amount > 50000 and deal.heating = "pipe" and "water" in deal.site_works')).toEqual([]);
  });

  it('takes a line’s way back to its deal for the deal itself', () => {
    expect(checker.formula('deal.amount', checker.lines).diagnostics).toEqual([]);
    expect(checker.formula('item.deal.amount', checker.lines).diagnostics).toEqual([]);
  });

  it('refuses a name with two meanings', () => {
    const sheet = { ...NET_PRICES.sheet, document: [...NET_PRICES.sheet.document, figure('quantity', '1', 'number')] };
    const both = new Checker(context(sheet));
    expect(both.formula('quantity', both.lines).diagnostics[0]!.message).toBe(
      '“quantity” could mean item.quantity or figures.quantity; write out which.',
    );
  });

  it('never throws, whatever is typed', () => {
    const pieces = fc.constantFrom(
      'deal',
      '.',
      'lines',
      '[',
      ']',
      '(',
      ')',
      'net',
      '+',
      '"x"',
      ',',
      'SUM',
      'GROUP',
      'this',
      '1',
      '??',
      'in',
      'IF',
      'SCHEDULE',
      'tax_rows',
    );
    fc.assert(
      fc.property(fc.array(pieces, { maxLength: 25 }), (typed) => {
        const { diagnostics } = checker.formula(typed.join(' '));
        for (const { from, to } of diagnostics) expect(from).toBeLessThanOrEqual(to);
      }),
      { numRuns: 500 },
    );
  });
});

describe('a sheet', () => {
  const sheet = (document: Figure[], more: Partial<FigureSheet> = {}): FigureSheet => ({
    ...NET_PRICES.sheet,
    document: [...NET_PRICES.sheet.document, ...document],
    ...more,
  });
  const problemsOf = (checked: ReturnType<typeof checkSheet>, key: string) => [
    ...checked.figures[key]!.diagnostics.map(({ message }) => message),
    ...checked.figures[key]!.problems,
  ];

  it('reports a circle by its members', () => {
    const checked = checkSheet(context(sheet([figure('a', 'b * 2'), figure('b', 'c'), figure('c', 'a + subtotal')])));
    expect(problemsOf(checked, 'a')).toEqual(['“a” is computed from itself, by way of “b”, “c”.']);
    expect(problemsOf(checked, 'c')).toEqual(['“c” is computed from itself, by way of “a”, “b”.']);
    expect(problemsOf(checked, 'subtotal')).toEqual([]);
  });

  it('knows what uses what', () => {
    const { figures } = checkSheet(context(NET_PRICES.sheet));
    expect(figures.total!.uses).toEqual(['subtotal', 'tax_total']);
    expect(figures['lines.net']!.usedBy).toEqual(['tax_rows.base', 'subtotal', 'extras_total']);
    expect(figures['tax_rows.tax_amount']!.uses).toEqual(['tax_rows.base', 'tax_rows.tax_rate']);
  });

  it('holds a figure to its declared type, its name and its meaning', () => {
    const checked = checkSheet(
      context(
        sheet([
          figure('wording', '"x"'),
          figure('item', '1', 'number'),
          { ...figure('twice', 'subtotal'), meaning: 'gross-total' },
        ]),
      ),
    );
    expect(problemsOf(checked, 'wording')).toEqual([
      '“wording” should be an amount of money, but its formula gives a text.',
    ]);
    expect(problemsOf(checked, 'item')).toEqual(['“item” has a meaning of its own in formulas and cannot be a name.']);
    expect(problemsOf(checked, 'twice')).toEqual([
      'The meaning “gross-total” is given to 2 figures; one figure can have it.',
    ]);
  });

  it('lets no figure be called as a word or a function of the formulas is', () => {
    const named = (name: string) => problemsOf(checkSheet(context(sheet([figure(name, 'subtotal')]))), name);
    expect(named('if')).toEqual(['“if” is the name of a function; take another one, such as “if_figure”.']);
    expect(named('Round')).toEqual(['“Round” is the name of a function; take another one, such as “Round_figure”.']);
    expect(named('not')).toEqual(['“not” is a word of the formulas and cannot be a name.']);
    expect(named('__proto__')).toEqual(['“__proto__” cannot be a name: it may begin with one _ at most.']);
    expect(named('iffy')).toEqual([]);
  });

  it('holds the cells of a table to their columns', () => {
    const table = {
      name: 'freight',
      label: 'Freight',
      columns: [
        { name: 'from', label: 'From', type: 'number' as const },
        { name: 'day', label: 'Day', type: 'date' as const },
      ],
    };
    const rows = [
      ['1', '2026-11-23'],
      ['x', '23/11'],
      ['', ''],
    ];
    expect(
      checkSheet(
        context(
          sheet([], {
            tables: [
              { ...table, rows },
              { ...table, rows: [] },
            ],
          }),
        ),
      ).problems,
    ).toEqual([
      'There are two tables called “freight”.',
      'The table “Freight”, row 2: “x” is not a number.',
      'The table “Freight”, row 2: “23/11” is not a date such as 2026-11-23.',
      'There are two tables called “freight”.',
    ]);
  });

  it.each(['', '1x', 'a b', 'lines', 'not', 'figures'])('refuses %j as a name', (name) => {
    expect(refuseName(name)).toBeDefined();
  });

  it('follows a renamed figure wherever it is used, and nowhere else', () => {
    const source = sheet([figure('deposit', 'total * 30% + figures.total * 0 + SUM(lines.net) * 0')]);
    const renamed = renameFigure(context(source), 'total', 'grand_total');
    expect(renamed.document.map(({ name }) => name)).toContain('grand_total');
    expect(renamed.document.at(-1)!.formula).toBe('grand_total * 30% + figures.grand_total * 0 + SUM(lines.net) * 0');
    const net = renameFigure(context(source), 'lines.net', 'line_net');
    expect(net.lists[0]!.columns.find(({ name }) => name === 'base')!.formula).toBe('SUM(item.lines.line_net)');
    expect(net.sums.map(({ column }) => column)).toContain('lines[not optional].line_net');
    expect(net.document.at(-1)!.formula).toContain('SUM(lines.line_net)');
    const rows = renameFigure(context(source), 'tax_rows', 'vat_rows');
    expect(rows.lists[0]!.name).toBe('vat_rows');
    expect(rows.document.find(({ name }) => name === 'tax_total')!.formula).toBe('SUM(vat_rows.tax_amount)');
    expect(Object.values(checkSheet(context(rows)).figures).flatMap(({ diagnostics }) => diagnostics)).toEqual([]);
  });
});
