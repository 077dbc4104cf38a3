import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoSchema, demoSnapshot, withFields } from '../../tests/demo-snapshot';
import { Decimal } from '../money/decimal';
import type { FieldValue, RecordSnapshot } from '../record/snapshot';
import { collectReads } from './cell';
import type { Figure, FigureSheet } from './figure';
import { FUNCTIONS } from '../formula/functions';
import { Sheet } from './sheet';
import { text, type Value } from '../formula/value';
import { workingsOf } from './workings';

const figure = (name: string, formula: string, type: Figure['type'] = 'amount'): Figure => ({
  name,
  label: name,
  formula,
  type,
});

const NET = figure('net', 'quantity * unit_price * (1 - discount ?? 0%)');

function sheetOf(snapshot: RecordSnapshot, parts: Partial<FigureSheet> = {}): Sheet {
  return new Sheet({
    sheet: {
      currency: 'deal.currency',
      rounding: 'half-away',
      perLine: [NET],
      lists: [],
      document: [],
      sums: [],
      ...parts,
    },
    schema: demoSchema,
    snapshot,
    root: 'deal',
    roots: { company: { country: text('GB') }, document: { issue_date: { type: 'date', day: 20_780 } } },
    locale: 'en-GB',
  });
}

const vents = demoSnapshot('D-1187');
const value = (formula: string, snapshot = vents, parts: Partial<FigureSheet> = {}): Value =>
  sheetOf(snapshot, parts).evaluate('test', formula).value;
const message = (formula: string, snapshot = vents, parts: Partial<FigureSheet> = {}) => {
  const result = value(formula, snapshot, parts);
  return result.type === 'error' ? result.message : `no error but ${result.type}`;
};
const decimal = (formula: string, snapshot = vents) => {
  const result = value(formula, snapshot);
  return 'value' in result && result.value instanceof Decimal ? result.value.toFixed() : result;
};

describe('arithmetic', () => {
  it.each([
    ['0.1 + 0.2', '0.3'],
    ['-2^2', '4'],
    ['1 - 10%', '0.9'],
    ['ROUND(2.5)', '3'],
    ['ROUND(-12.345, 2)', '-12.35'],
    ['COUNT(lines)', '4'],
    ['SUM(lines.net)', '15364'],
    ['SUM(lines[quantity > 2].net)', '11988'],
  ])('%s is %s', (formula, expected) => {
    expect(decimal(formula)).toBe(expected);
  });

  it('names both currencies when they are mixed', () => {
    const mixed = withFields(vents, { amount: { amount: '1', currency: 'EUR' } });
    expect(message('deal.amount + SUM(lines.net)', mixed)).toBe(
      'EUR and GBP cannot be mixed in one sum; convert one of them first, with EXCHANGE.',
    );
  });

  it('has an error for division by zero', () => {
    expect(message('1 / (2 - 2)')).toBe('Division by zero.');
  });

  it('adds days to dates', () => {
    expect(value('TEXT(document.issue_date + 30, "d MMMM yyyy")')).toEqual(text('23 December 2026'));
    expect(message('TEXT(document.issue_date, "dd/mm/yyyy")')).toBe(
      'In the pattern “dd/mm/yyyy”, months are MM; mm would be minutes.',
    );
  });
});

describe('a blank is not zero', () => {
  const blankPrice = demoSnapshot('D-1202');

  it.each(['lines.unit_price', 'lines.net', 'lines[quantity = 4].net'])(
    'SUM(%s) names the line and the field',
    (list) => {
      expect(message(`SUM(${list})`, blankPrice)).toBe('Line 4, Vent motor VM-48, 24 V: no unit price');
    },
  );

  it.each([
    'deal.order_number & "x"',
    'deal.order_number < "x"',
    'not deal.order_number',
    'IF(deal.order_number, 1, 2)',
  ])('%s is an error', (formula) => {
    expect(message(formula)).toBe('The deal has no purchase-order number');
  });

  it.each([
    ['deal.order_number = deal.incoterm', true],
    ['deal.order_number = "x"', false],
    ['deal.order_number <> "x"', true],
    ['ISBLANK(deal.order_number)', true],
    ['deal.order_number in deal.site_works', false],
    ['"crane" in deal.site_works', true],
    ['deal.heating in deal.site_works', false],
  ])('%s is %s', (formula, expected) => {
    expect(value(formula)).toEqual({ type: 'boolean', value: expected });
  });

  it('is passed over by COUNT and answered by ??', () => {
    expect(decimal('COUNT(lines.unit_price)', blankPrice)).toBe('4');
    expect(value('deal.order_number ?? "none"')).toEqual(text('none'));
  });

  it('?? does not hide an error', () => {
    expect(message('1 / 0 ?? 5')).toBe('Division by zero.');
  });

  it.each([
    'SUM(lines.unit_price)',
    'AVERAGE(lines.unit_price)',
    'MIN(lines.unit_price)',
    'MAX(lines.unit_price)',
    'SUM(lines[unit_price > 0].quantity)',
    'SUM(SORT(lines, quantity).unit_price)',
  ])('%s is an error that names the line and the field', (formula) => {
    expect(message(formula, blankPrice)).toBe('Line 4, Vent motor VM-48, 24 V: no unit price');
  });

  it.each([
    ['COUNTA(lines.unit_price)', '4'],
    ['COUNT(lines[ISBLANK(unit_price)])', '1'],
  ])('%s passes it over or answers: %s', (formula, expected) => {
    expect(decimal(formula, blankPrice)).toBe(expected);
  });

  it('is passed over by TEXTJOIN where asked, by FIRST and LAST always', () => {
    expect(value('TEXTJOIN(", ", true, deal.order_number, deal.heating)')).toEqual(text('pipe'));
    expect(value('LAST(lines.discount)', vents)).toMatchObject({ type: 'percent' });
    expect(value('FIRST(lines[false].name)')).toMatchObject({ type: 'blank', cause: 'the list is empty' });
  });

  it('of a yes/no field is no, of a field of several choices an empty list', () => {
    const bare = withFields(vents, { site_works: null });
    expect(value('"crane" in deal.site_works', bare)).toEqual({ type: 'boolean', value: false });
    const line = withFields((vents.fields.lines as RecordSnapshot[])[0]!, { optional: null });
    expect(decimal('COUNT(lines[not optional])', withFields(vents, { lines: [line] }))).toBe('1');
  });

  it('reaches through a missing relation with its cause', () => {
    expect(value('deal.contact.family_name', demoSnapshot('D-1196'))).toMatchObject({
      type: 'blank',
      cause: 'the deal has no contact',
    });
  });

  it('sums nothing to a zero of money where the column is money', () => {
    expect(value('SUM(lines[false].net)')).toMatchObject({ type: 'money', currency: 'GBP' });
    expect(value('SUM(lines[false].quantity)')).toMatchObject({ type: 'number' });
  });
});

describe('names', () => {
  it('refuses a name with two meanings and offers both', () => {
    const ambiguous = { document: [figure('name', '"x"', 'text')] };
    expect(message('lines[name = "x"]', vents, ambiguous)).toBe(
      '“name” could mean item.name or figures.name; write out which.',
    );
    expect(value('COUNT(lines[item.name = figures.name])', vents, ambiguous)).toMatchObject({ type: 'number' });
  });

  it('says what there is not', () => {
    expect(message('subtotl')).toBe('“subtotl” is neither a field nor a figure.');
    expect(message('SUMME(1)')).toBe('There is no function SUMME.');
  });
});

describe('figures', () => {
  it('report a cycle and stay evaluable', () => {
    const sheet = sheetOf(vents, { document: [figure('a', 'b + SUM(lines.net)'), figure('b', 'a')] });
    expect(sheet.figure('a').value).toMatchObject({ type: 'error', message: '“a” depends on itself.' });
  });

  it('do not depend on the order they are written in', () => {
    const figures = [
      figure('subtotal', 'SUM(lines.net)'),
      figure('tax', 'subtotal * 20%'),
      figure('total', 'subtotal + tax'),
    ];
    const inOrder = sheetOf(vents, { document: figures });
    const reversed = sheetOf(vents, { document: [...figures].reverse() });
    for (const { name } of figures) expect(reversed.figure(name).value).toEqual(inOrder.figure(name).value);
  });

  it('group lines by their keys, with columns of their own', () => {
    const tax = {
      name: 'tax_rows',
      label: 'Tax',
      formula: 'GROUP(lines[not optional], tax_category, tax_rate)',
      columns: [figure('base', 'SUM(item.lines.net)'), figure('tax', 'base * tax_rate')],
    };
    const sheet = sheetOf(demoSnapshot('D-1194'), { lists: [tax] });
    const sums = ['base', 'tax'].map((column) => {
      const list = sheet.evaluate('test', `tax_rows.${column}`).value;
      return list.type === 'list'
        ? list.items.map((item) => (item.type === 'money' ? item.value.toFixed() : item.type))
        : list;
    });
    expect(sums).toEqual([
      ['28116', '4736', '420'],
      ['5623.2', '236.8', '0'],
    ]);
  });

  it('explain themselves in a sentence, with roundings', () => {
    const sheet = sheetOf(demoSnapshot('D-1200'));
    const list = sheet.evaluate('test', 'lines').value;
    const first = list.type === 'list' && list.items[0]?.type === 'record' ? list.items[0].row : undefined;
    const workings = workingsOf(sheet.itemFigure(first!, NET), sheet, 'en-GB');
    expect(workings.sentence.replaceAll('\u00a0', ' ').replaceAll('\u202f', ' ')).toBe(
      'net of line 1, Third of a training fund = 3 × 33.333 EUR × (1 − 0 %) = 99.999 EUR, rounded = 100.00 EUR',
    );
    expect(workings.inputs.map(({ label }) => label)).toEqual(['Quantity', 'Unit price', 'Discount']);
  });
});

describe('a figure of a line', () => {
  const parts = (perLine: Figure[], document: Figure[] = []) => ({ perLine: [NET, ...perLine], document });
  const column = (formula: string, sheet: Partial<FigureSheet>, snapshot = vents) => {
    const list = sheetOf(snapshot, sheet).evaluate('test', formula).value;
    return list.type === 'list' ? list.items.map((item) => ('value' in item ? String(item.value) : item.type)) : list;
  };

  it('can look at all lines, which is computed once', () => {
    const share = figure('share', 'ROUND(net / SUM(lines.net) * 100, 2)', 'number');
    // 5,238 + 6,750 + 2,940 + 436 = 15,364.
    expect(column('lines.share', parts([share]))).toEqual(['34.09', '43.93', '19.14', '2.84']);
  });

  it('tells the line where something went wrong, or the figure', () => {
    const rate = figure('rate', 'net / (quantity - 1)', 'price');
    const broken = sheetOf(
      vents,
      parts([rate], [figure('share', 'SUM(lines.net) / (1 - 1)'), figure('rated', 'SUM(lines.rate)')]),
    );
    expect(broken.figure('rated').value).toMatchObject({
      message: 'Line 3, Climate controller CC-8: Division by zero.',
      figure: 'rate',
    });
    expect(broken.figure('share').value).toMatchObject({ message: '“share”: Division by zero.', figure: 'share' });
    const freight = figure('freight', 'LOOKUP(-1, SORT(lines.quantity), lines.unit_price)');
    expect(sheetOf(vents, parts([], [freight])).figure('freight').value).toMatchObject({
      message: '“freight”: “−1” is not in the list.',
    });
  });

  it('takes its part of a sum, to the last unit', () => {
    const part = figure('part', 'PART(figures.rebate, lines[quantity > 1], net)');
    const rebate = figure('rebate', 'AMOUNT(100)');
    // Over 5,238, 6,750 and 436; the sensor's controller has no part: 42.16, 54.33 and 3.51.
    expect(column('lines.part', parts([part], [rebate]))).toEqual(['42.16', '54.33', 'blank', '3.51']);
    const equal = figure('part', 'ROUND(PART(figures.rebate, lines, 1), 2)');
    expect(column('lines.part', parts([equal], [rebate]))).toEqual(['25', '25', '25', '25']);
  });

  it('calls itself “this” inside a filter', () => {
    const rank = figure('rank', 'COUNT(lines[net > this.net]) + 1', 'number');
    expect(column('lines.rank', parts([rank]))).toEqual(['2', '1', '3', '4']);
  });

  it('reports a circle through the document and stays evaluable', () => {
    const circle = parts(
      [figure('share', 'net / subtotal', 'number')],
      [figure('subtotal', 'SUM(lines.share) * AMOUNT(1)')],
    );
    expect(column('lines.share', circle)).toMatchObject({
      type: 'error',
      message: expect.stringContaining('depends on itself') as string,
    });
  });
});

describe('after a change', () => {
  const figures: Partial<FigureSheet> = {
    perLine: [NET, figure('share', 'net / SUM(lines[not optional].net)', 'number')],
    lists: [
      {
        name: 'sections',
        label: 'Sections',
        formula: 'GROUP(lines[not optional], section)',
        columns: [figure('sum', 'SUM(item.lines.net)')],
      },
    ],
    document: [
      figure('subtotal', 'SUM(lines[not optional].net)'),
      figure('largest', 'MAX(sections.sum)'),
      figure('discounted', 'COUNT(lines[discount > 0%])', 'number'),
    ],
  };
  const formulas = [
    'subtotal',
    'largest',
    'discounted',
    'lines.net',
    'lines.share',
    'sections.sum',
    'sections.section',
  ];
  const show = (sheet: Sheet) =>
    formulas.map((formula) => JSON.stringify(plain(sheet.evaluate(formula, formula).value)));
  const plain = (each: Value): unknown => {
    if (each.type === 'list') return each.items.map(plain);
    return 'value' in each ? String(each.value) : each.type === 'record' ? each.row.id : each;
  };

  it('only what depends on it is computed again', () => {
    const sheet = sheetOf(vents, figures);
    show(sheet);
    const lines = vents.fields.lines as RecordSnapshot[];
    const cells = ['subtotal', 'discounted'].map((name) => sheet.figure(name));
    sheet.update(
      withFields(vents, {
        lines: lines.map((line, at) => (at === 0 ? withFields(line, { quantity: { number: '13' } }) : line)),
      }),
    );
    expect(cells.map(({ state }) => state)).toEqual(['new', 'done']);
    expect(plain(sheet.figure('subtotal').value)).toBe('15800.5');
  });

  it('an error goes once its data is corrected, wherever it was read', () => {
    const lines = vents.fields.lines as RecordSnapshot[];
    const blank = withFields(vents, {
      lines: lines.map((line, at) => (at === 1 ? withFields(line, { unit_price: null }) : line)),
    });
    const sheet = sheetOf(blank, figures);
    const sums = ['MAX(lines.unit_price)', 'SUM(lines.unit_price)'];
    const [highest, sum] = sums.map(
      (formula) =>
        new Sheet({ ...sheet.input, sheet: { ...sheet.input.sheet, document: [figure('it', formula, 'price')] } }),
    );
    for (const each of [highest!, sum!]) {
      expect(each.figure('it').value.type).toBe('error');
      each.update(vents);
      expect(each.figure('it').value.type).toBe('money');
    }
    show(sheet);
    sheet.update(vents);
    expect(show(sheet)).toEqual(show(sheetOf(vents, figures)));
  });

  it('gives the same as computing everything anew, whatever the changes', () => {
    const change = fc.record({
      line: fc.nat(4),
      field: fc.constantFrom('quantity', 'unit_price', 'discount', 'optional', 'section', 'remove', 'swap'),
      amount: fc.nat(30),
    });
    fc.assert(
      fc.property(fc.array(change, { minLength: 1, maxLength: 6 }), (changes) => {
        let snapshot = demoSnapshot('D-1213');
        const sheet = sheetOf(snapshot, figures);
        show(sheet);
        for (const { line, field, amount } of changes) {
          const lines = [...(snapshot.fields.lines as RecordSnapshot[])];
          const at = line % Math.max(1, lines.length);
          if (lines.length === 0) continue;
          if (field === 'remove') lines.splice(at, 1);
          else if (field === 'swap') lines.push(lines.shift()!);
          else
            lines[at] = withFields(lines[at]!, {
              [field]: {
                quantity: { number: String(amount) },
                unit_price: amount > 15 ? null : { amount: `${amount}.5`, currency: 'GBP' },
                discount: amount > 20 ? null : { percent: `0.${amount}` },
                optional: amount % 2 === 0,
                section: `S${amount % 3}`,
              }[field],
            });
          snapshot = withFields(snapshot, { lines });
          sheet.update(snapshot);
          expect(show(sheet)).toEqual(show(sheetOf(snapshot, figures)));
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe('bounds', () => {
  it('figures built on each other too deeply are an error, not a full stack', () => {
    const chain = Array.from({ length: 3_000 }, (_, at) =>
      figure(`f${at}`, at === 2_999 ? '1' : `f${at + 1} + 1`, 'number'),
    );
    const sheet = sheetOf(vents, { document: chain });
    expect(sheet.figure('f0').value).toMatchObject({
      type: 'error',
      message: expect.stringContaining('levels deep') as string,
    });
  });

  it('a text that doubles without end is an error, not a full memory', () => {
    const chain = Array.from({ length: 60 }, (_, at) =>
      figure(`f${at}`, at === 0 ? '"abcdefgh"' : `f${at - 1} & f${at - 1}`, 'text'),
    );
    const sheet = sheetOf(vents, { document: chain });
    expect(sheet.figure('f59').value).toMatchObject({
      type: 'error',
      message: '“f14”: A text may have 100000 characters at most.',
    });
  });

  it('a million lines are refused with a sentence', () => {
    const line = (vents.fields.lines as RecordSnapshot[])[0]!;
    const many = withFields(vents, { lines: Array.from({ length: 1_000_000 }, () => line) });
    expect(message('SUM(lines[not optional].net)', many)).toBe('A list may have 200000 items at most.');
    expect(message('SUM(lines.net)', many)).toBe('A list may have 200000 items at most.');
  });

  it('no formula throws, whatever it says', () => {
    const pieces = fc.constantFrom(
      'deal',
      'lines',
      'net',
      'deal.amount',
      'lines.net',
      '1',
      '0',
      '"x"',
      '10%',
      'deal.order_number',
      'document.issue_date',
      'lines[not optional]',
    );
    const formula = fc.letrec<{ node: string }>((tie) => ({
      node: fc.oneof(
        { maxDepth: 4, withCrossShrink: true },
        pieces,
        fc
          .tuple(
            tie('node'),
            fc.constantFrom('+', '-', '*', '/', '^', '&', '=', '<', 'in', 'and', 'or', '??'),
            tie('node'),
          )
          .map(([one, operator, other]) => `(${one}) ${operator} (${other})`),
        fc
          .tuple(fc.constantFrom(...FUNCTIONS.keys()), fc.array(tie('node'), { maxLength: 4 }))
          .map(([name, args]) => `${name}(${args.join(', ')})`),
      ),
    })).node;
    const sheet = sheetOf(vents);
    fc.assert(
      fc.property(formula, (source) => {
        expect(sheet.evaluate('test', source).value.type).toBeDefined();
      }),
      { numRuns: 3_000 },
    );
  });
});

describe('what was read', () => {
  const reads = (snapshot: RecordSnapshot) => {
    const into = new Map<string, string>();
    collectReads(sheetOf(snapshot).evaluate('test', 'SUM(lines[not optional].net)'), into);
    return into;
  };
  const change = (fields: Record<string, FieldValue>) => {
    const lines = vents.fields.lines as RecordSnapshot[];
    return withFields(vents, { lines: lines.map((line, index) => (index === 0 ? withFields(line, fields) : line)) });
  };

  it('holds a field that the figure went through', () => {
    expect(reads(change({ unit_price: { amount: '490', currency: 'GBP' } }))).not.toEqual(reads(vents));
  });

  it('does not hold a field that nothing printed', () => {
    expect(reads(change({ description: 'Other words' }))).toEqual(reads(vents));
  });

  it('holds which lines a filter chose, not what it looked at', () => {
    expect(reads(vents).has('deal.lines{D-1187-1}.optional')).toBe(false);
    expect(reads(change({ optional: true }))).not.toEqual(reads(vents));
  });
});
