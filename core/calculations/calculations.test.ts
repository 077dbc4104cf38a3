import type { MeaningAmount } from '../formula/meanings';
import { describe, expect, it } from 'vitest';
import { demoSchema, demoSnapshot, withFields } from '../../tests/demo-snapshot';
import { DOCUMENT_ROOT } from '../sheet/check';
import { checkSheet } from '../sheet/check-sheet';
import type { RegisteredDocument } from '../formula/functions/register';
import { Sheet } from '../sheet/sheet';
import { formatValue, type Value } from '../formula/value';
import type { RecordSnapshot } from '../record/snapshot';
import { CALCULATIONS, takeCalculation, type Calculation } from './index';

/** 23 November 2026. */
const ISSUED = 20_780;

const INVOICED_BEFORE: RegisteredDocument[] = [
  { id: 'a', number: 'I-1', kind: 'invoice', issued: '2026-09-01', meanings: { 'gross-total': { value: '1000.00', currency: 'X' } } },
  { id: 'b', number: 'I-2', kind: 'Invoice', issued: '2026-10-01', meanings: { 'gross-total': { value: '250.50', currency: 'X' }, payable: { value: '200.25', currency: 'X' } } },
  { id: 'c', number: 'Q-1', kind: 'quote', issued: '2026-08-01', meanings: { 'gross-total': { value: '9.99', currency: 'X' } } },
]; // prettier-ignore

function sheetFor(calculation: Calculation, deal: string, snapshot = demoSnapshot(deal)): Sheet {
  const currency = snapshot.fields.currency as string;
  const registered = INVOICED_BEFORE.map((each) => ({
    ...each,
    meanings: Object.fromEntries(
      Object.entries(each.meanings).map(([meaning, known]) => [meaning, { ...(known as MeaningAmount), currency }]),
    ),
  }));
  return new Sheet({
    sheet: calculation.sheet,
    schema: demoSchema,
    snapshot,
    root: 'deal',
    roots: { document: { issue_date: { type: 'date', day: ISSUED } } },
    locale: 'en-GB',
    today: ISSUED,
    registered,
  });
}

const calculation = (id: string) => CALCULATIONS.find((each) => each.id === id)!;

function plain(value: Value): string | string[] {
  if (value.type === 'money') return value.value.toFixed();
  return value.type === 'list' ? (value.items.map(plain) as string[]) : formatValue(value, 'en-GB');
}

const ISSUE = { schema: demoSchema, record: { type: 'Deal', root: 'deal' }, roots: { document: DOCUMENT_ROOT } };
describe.each(CALCULATIONS.map((each) => [each.id, each] as const))('%s', (id, each) => {
  it('checks without a complaint', () => {
    const { figures, problems } = checkSheet({ ...ISSUE, sheet: each.sheet });
    const complaints = Object.values(figures).flatMap(({ key, diagnostics, problems: own }) => [
      ...diagnostics.map(({ message }) => `${key}: ${message}`),
      ...own,
    ]);
    expect([...complaints, ...problems]).toEqual([]);
  });
});

describe('worked by hand', () => {
  const figures = (id: string, deal: string, names: string[]) => {
    const sheet = sheetFor(calculation(id), deal);
    return names.map((name) => plain(sheet.evaluate(name, name).value));
  };

  it('prices with tax: 577.47 at 20 % is 481.23 and 96.24; 89.85 at 5 % is 85.57 and 4.28', () => {
    expect(figures('tax-included', 'D-1216', ['tax_rows.base', 'tax_rows.tax_amount', 'total'])).toEqual([
      ['481.23', '85.57'],
      ['96.24', '4.28'],
      '667.32',
    ]);
  });

  it('the nets of lines with tax add up to their category: 481.23 over 299.97, 233.31 and 44.19', () => {
    // 299.97/1.2 = 249.975, 233.31/1.2 = 194.425, 44.19/1.2 = 36.825: floors add up to 481.21, two units are left, and
    // the base is 481.225 rounded up. The remainders are equal but for the base's own rounding, which favours the larger.
    expect(figures('tax-included', 'D-1216', ['lines[tax_category = "standard"].net'])).toEqual([
      ['249.98', '194.43', '36.82'],
    ]);
  });

  it('chained and capped: 300.00 off a line of 218.00 leaves nothing, not less', () => {
    expect(figures('chained-discounts', 'D-1213', ['lines[sku = "RW-1"].after_money'])).toEqual([['0']]);
    // 36 × 485 = 17,460 less 10 % = 15,714 less 200.
    expect(figures('chained-discounts', 'D-1213', ['lines[sku = "VM-48"].after_money'])).toEqual([['15514']]);
  });

  it('the deal’s discount is 3 % of 80,352.67 and 250.00', () => {
    expect(figures('chained-discounts', 'D-1213', ['deal_percent', 'deal_discount'])).toEqual(['2410.58', '2660.58']);
  });

  it('recurring: 3 × 89.00 less 10 % is 240.30 a month, 8,650.80 over 36 months; from the 18th, 14 of 31 days', () => {
    expect(
      figures('recurring', 'D-1214', [
        'monthly',
        'lines[billing = "monthly"].contract_value',
        'lines[billing = "monthly"].first_charge',
      ]),
    ).toEqual(['240.3', ['8650.8'], ['108.52']]);
  });

  it('bundles: 3,600 and its parts 390, 600 and 400 are 4,990', () => {
    expect(figures('bundles', 'D-1215', ['lines.rolled_up'])).toEqual([['4990', '0', '0', '0', '0']]);
  });

  it('cash rounding: 2,497.41 francs are paid as 2,497.40, the difference in its own row', () => {
    expect(figures('cash-rounding', 'D-1217', ['total', 'rounding', 'payable'])).toEqual([
      '2497.41',
      '-0.01',
      '2497.4',
    ]);
  });

  it('three decimals: 995.712 and 239.007 dinars', () => {
    expect(figures('net-prices', 'D-1218', ['lines.net', 'total'])).toEqual([['995.712', '239.007'], '1234.719']);
  });

  it('no minor unit: yen are whole', () => {
    expect(figures('instalments', 'D-1195', ['payments.amount'])).toEqual([['956904', '1435356', '797420']]);
  });

  it('due dates step over weekends and holidays', () => {
    const sheet = sheetFor(calculation('due-dates'), 'D-1187');
    const dates = ['due_net', 'due_end_of_month', 'due_working_days', 'discount_until'].map((name) =>
      plain(sheet.figure(name).value),
    );
    expect(dates).toEqual(['23 December 2026', '31 December 2026', '7 December 2026', '30 November 2026']);
  });
});

describe('negative lines and tax categories, by hand', () => {
  /** A deal of single units at these prices, each in a tax category at a rate. */
  const dealOf = (...lines: [price: string, category: string, rate: string][]) => {
    const deal = demoSnapshot('D-1187');
    const [model] = deal.fields.lines as RecordSnapshot[];
    return withFields(deal, {
      discount_percent: null,
      discount_amount: null,
      lines: lines.map(([amount, tax_category, percent], at) => ({
        ...withFields(model!, {
          quantity: { number: '1' },
          unit_price: { amount, currency: 'GBP' },
          discount: null,
          discount_amount: null,
          tax_category,
          tax_rate: { percent },
          weight: null,
        }),
        id: `L-${at}`,
      })),
    });
  };
  const figuresOf = (id: string, snapshot: RecordSnapshot, names: string[]) => {
    const sheet = sheetFor(calculation(id), 'D-1187', snapshot);
    return names.map((name) => plain(sheet.evaluate(name, name).value));
  };

  it.each([
    'net-prices',
    'chained-discounts',
    'allowances-and-charges',
    'group-discounts',
    'tax-per-line',
    'cash-rounding',
  ])('%s: lines of 1,000 and −200 at 21 % come to 968, not 1,210', (id) => {
    const deal = dealOf(['1000', 'standard', '0.21'], ['-200', 'standard', '0.21']);
    expect(figuresOf(id, deal, ['subtotal', 'total'])).toEqual(['800', '968']);
  });

  it('a document that returns more than it sells has no discount and no freight', () => {
    const deal = withFields(dealOf(['100', 'standard', '0.2'], ['-500', 'standard', '0.2']), {
      discount_percent: { percent: '0.1' },
      discount_amount: { amount: '30', currency: 'GBP' },
    });
    expect(figuresOf('chained-discounts', deal, ['deal_discount', 'total'])).toEqual(['0', '-480']);
    expect(figuresOf('allowances-and-charges', deal, ['allowances', 'charges', 'total'])).toEqual(['0', '0', '-480']);
  });

  it('prices with tax: 121 and −121 of one category are nets of 100 and −100', () => {
    const deal = dealOf(['121', 'standard', '0.21'], ['-121', 'standard', '0.21']);
    expect(figuresOf('tax-included', deal, ['lines.net', 'subtotal', 'tax_total', 'total'])).toEqual([
      ['100', '-100'],
      '0',
      '0',
      '0',
    ]);
  });

  it.each(['net-prices', 'chained-discounts', 'allowances-and-charges', 'group-discounts', 'tax-per-line', 'cash-rounding', 'bundles', 'instalments', 'final-invoice'])(
    '%s: a category that bears no tax is not taxed, whatever its lines say',
    (id) => {
      const untaxed = ['zero', 'exempt', 'reverse charge', 'export', 'outside scope'];
      const deal = dealOf(['100', 'standard', '0.2'], ...untaxed.map((category): [string, string, string] => ['50', category, '0.2']));
      expect(figuresOf(id, deal, ['tax_total', 'total'])).toEqual(['20', '370']);
    },
  ); // prettier-ignore

  it('two rates of one category that bears no tax are one tax row (BR-AE-1)', () => {
    const deal = dealOf(['100', 'reverse charge', '0.2'], ['50', 'reverse charge', '0']);
    expect(figuresOf('net-prices', deal, ['tax_rows.base', 'tax_rows.tax_rate'])).toEqual([['150'], ['0\u202f%']]);
  });
});

describe('taking a calculation', () => {
  it('adds what is new, replaces what has the same name, and keeps the rest', () => {
    const own = { ...calculation('net-prices').sheet };
    own.document = [...own.document, { name: 'mine', label: 'Mine', formula: 'total', type: 'amount' }];
    const { sheet, added, replaced } = takeCalculation(own, calculation('cash-rounding'));
    expect(added).toEqual(['rounding', 'payable']);
    expect(replaced).toEqual([]);
    expect(sheet.document.map(({ name }) => name)).toContain('mine');
    const chained = takeCalculation(own, calculation('chained-discounts'));
    expect(chained.replaced).toEqual(['lines.net']);
    expect(chained.sheet.tables).toBeUndefined();
  });
});
