import type { MeaningValues } from '../formula/meanings';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomDeals } from '../../tests/agreement/random-deals';
import { demoSchema, snapshotFrom, withFields } from '../../tests/demo-snapshot';
import { shipped } from '../../demo/shipped';
import { collectReads } from '../sheet/cell';
import type { FigureSheet } from '../sheet/figure';
import type { RegisteredDocument } from '../formula/functions/register';
import { meaningsOf } from '../sheet/figure-meanings';
import type { Value } from '../formula/value';
import { Sheet } from '../sheet/sheet';
import { Decimal } from '../money/decimal';
import type { RecordSnapshot } from '../record/snapshot';
import { CREDIT_NOTE, DEPOSIT_INVOICE, FINAL_INVOICE } from './invoicing';

type Kind = 'deposit' | 'final' | 'credit';

const SHEETS: Record<Kind, FigureSheet> = {
  deposit: DEPOSIT_INVOICE.sheet,
  final: FINAL_INVOICE.sheet,
  credit: CREDIT_NOTE.sheet,
};

/** A deal and the documents that were filed for it, one after the other. */
class Dossier {
  readonly filed: RegisteredDocument[] = [];

  constructor(readonly snapshot: RecordSnapshot) {}

  sheet(kind: Kind): Sheet {
    return new Sheet({
      sheet: SHEETS[kind],
      schema: demoSchema,
      snapshot: this.snapshot,
      root: 'deal',
      roots: { document: { issue_date: { type: 'date', day: 20_780 } } },
      locale: 'en-GB',
      registered: this.filed,
    });
  }

  /** Files a document of a kind; gives what it asks or credits. */
  file(kind: Kind): string {
    const sheet = this.sheet(kind);
    const number = `${kind}-${this.filed.length + 1}`;
    this.filed.push({
      id: number,
      number,
      kind: kind === 'credit' ? 'credit note' : 'invoice',
      issued: '2026-11-23',
      meanings: meaningsOf(sheet),
    });
    return amount(sheet, kind === 'final' ? 'payable' : 'due');
  }

  /** What a formula gives over the register as it is now. */
  amount(formula: string): string {
    return amount(this.sheet('final'), formula);
  }

  value(formula: string): Value {
    return this.sheet('final').evaluate(formula, formula).value;
  }

  /** What is invoiced and not credited, by tax category and rate. */
  open(): Map<string, { base: Decimal; tax: Decimal }> {
    return sums(
      this.sheet('final'),
      'GROUP(BILLED(), tax_category, tax_rate)',
      'SUM(item.lines.base)',
      'SUM(item.lines.tax)',
      'tax_rate',
    );
  }

  order(): Map<string, { base: Decimal; tax: Decimal }> {
    return sums(this.sheet('final'), 'tax_rows', 'base', 'tax_amount', 'applied_rate');
  }
}

function amount(sheet: Sheet, formula: string): string {
  const { value } = sheet.evaluate(formula, formula);
  return value.type === 'money' ? value.value.toFixed() : `${value.type} ${'message' in value ? value.message : ''}`;
}

function sums(sheet: Sheet, list: string, base: string, tax: string, rate: string) {
  const found = new Map<string, { base: Decimal; tax: Decimal }>();
  const { value } = sheet.evaluate('rows', list);
  for (const item of value.type === 'list' ? value.items : []) {
    if (item.type !== 'record') continue;
    const of = (formula: string) => sheet.evaluate(formula, formula, item.row).value;
    const [one, other] = [of(base), of(tax)];
    if (one.type !== 'money' || other.type !== 'money') throw new Error('An invoiced sum is no money.');
    const key = `${JSON.stringify(of('tax_category'))} ${JSON.stringify(of(rate))}`;
    found.set(key, { base: one.value, tax: other.value });
  }
  return found;
}

/** A deal of one line at 21 %: 1,000.00 and its tax of 210.00. */
function plainDeal(deposit = '30'): RecordSnapshot {
  const records = randomDeals(1, 1);
  const deal = { ...records.deals[0]!, currency: 'EUR', deposit_percent: deposit };
  const line = {
    ...records.lineItems[0]!, quantity: '1', unit_price: '1000', currency: 'EUR', discount: null, tax_category: 'standard', tax_rate: '21', optional: false,
  }; // prettier-ignore
  return snapshotFrom({ ...records, deals: [deal], lineItems: [line] }, deal.id);
}

describe('invoices among invoices', () => {
  it('a deposit of 363 and a final invoice of 847 are credited by 1,210', () => {
    const dossier = new Dossier(plainDeal());
    expect([dossier.file('deposit'), dossier.file('final')]).toEqual(['363', '847']);
    expect(dossier.amount('SUM(BILLED().gross)')).toBe('1210');
    expect(dossier.file('credit')).toBe('1210');
    expect(dossier.amount('SUM(REGISTERED("invoice").open)')).toBe('0');
    expect(dossier.amount('SUM(REGISTERED("invoice").credited)')).toBe('1210');
    expect(dossier.file('credit')).toBe('0');
  });

  it('a second final invoice asks nothing, and one after a credit note asks everything again', () => {
    const dossier = new Dossier(plainDeal());
    dossier.file('deposit');
    dossier.file('final');
    expect(dossier.file('final')).toBe('0');
    dossier.file('credit');
    expect(dossier.file('final')).toBe('1210');
  });

  it('a deposit that was credited is not deducted', () => {
    const dossier = new Dossier(plainDeal());
    dossier.file('deposit');
    dossier.file('credit');
    expect(dossier.file('final')).toBe('1210');
  });

  it('deposits ask no more than the order has left', () => {
    const dossier = new Dossier(plainDeal('40'));
    expect(['deposit', 'deposit', 'deposit', 'deposit'].map((kind) => dossier.file(kind as Kind))).toEqual([
      '484',
      '484',
      '242',
      '0',
    ]);
  });

  it('tells of each invoice what is open and what was credited, of other documents neither', () => {
    const dossier = new Dossier(plainDeal());
    dossier.file('deposit');
    dossier.file('final');
    const sentences = () =>
      ['open', 'credited'].map((name) =>
        ['deposit-1', 'final-2'].map((number) => dossier.amount(`FIRST(REGISTERED()[number = "${number}"]).${name}`)),
      );
    expect(sentences()).toEqual([
      ['363', '847'],
      ['0', '0'],
    ]);
    dossier.file('credit');
    expect(sentences()).toEqual([
      ['0', '0'],
      ['363', '847'],
    ]);
    expect(dossier.amount('FIRST(REGISTERED("credit note")).open')).toBe('blank ');
  });

  it('keeps an invoice without tax among what was invoiced', () => {
    const deal = plainDeal();
    const [line] = deal.fields.lines as RecordSnapshot[];
    const dossier = new Dossier(withFields(deal, { lines: [withFields(line!, { tax_category: 'reverse charge' })] }));
    dossier.file('deposit');
    expect(['COUNT(BILLED())', 'SUM(BILLED().base)'].map((formula) => dossier.amount(formula))).toEqual([
      'number ',
      '300',
    ]);
    expect(dossier.file('final')).toBe('700');
  });

  it('what the register says counts as used, so that another filing is noticed', () => {
    const dossier = new Dossier(plainDeal());
    dossier.file('deposit');
    const used = new Map<string, string>();
    collectReads(dossier.sheet('final').figure('prepaid'), used);
    expect([...used].filter(([path]) => path.startsWith('billed_rows{'))).toContainEqual([
      'billed_rows{deposit-1 standard 0.21}.gross',
      '363 EUR',
    ]);
  });

  it('says which invoices it refers to', () => {
    const dossier = new Dossier(plainDeal());
    dossier.file('deposit');
    dossier.file('final');
    dossier.file('credit');
    const refers = (number: string) => {
      const { value } = dossier
        .sheet('final')
        .evaluate('refers', `FIRST(REGISTERED()[number = "${number}"]).refers_to`);
      return value.type === 'list' ? value.items.map((item) => (item.type === 'text' ? item.value : item.type)) : value;
    };
    expect(refers('final-2')).toEqual(['deposit-1']);
    expect(refers('credit-3')).toEqual(['deposit-1', 'final-2']);
  });

  it('an invoice that was filed without its rows counts in one', () => {
    const dossier = new Dossier(plainDeal());
    const document = {
      'gross-total': { value: '1210', currency: 'EUR' },
      'tax-total': { value: '210', currency: 'EUR' },
      prepaid: { value: '363', currency: 'EUR' },
      payable: { value: '847', currency: 'EUR' },
    };
    dossier.filed.push({
      id: 'old',
      number: 'I-7',
      kind: 'invoice',
      issued: '2026-01-01',
      meanings: { document, rows: [] },
    });
    expect([dossier.amount('SUM(BILLED().gross)'), dossier.amount('SUM(BILLED().tax)')]).toEqual(['847', '147']);
    expect(dossier.file('final')).toBe('363');
    dossier.filed.push({
      id: 'oldcredit',
      number: 'C-1',
      kind: 'Credit note',
      issued: '2026-02-01',
      meanings: { document: {}, rows: [] },
    });
    expect(dossier.amount('SUM(BILLED().gross)')).toBe('0');
  });

  it('an invoice that was filed without its rows is taken as it is, whatever it has of totals', () => {
    const billed = (document: MeaningValues) => {
      const dossier = new Dossier(plainDeal());
      dossier.filed.push({
        id: 'old',
        number: 'I-7',
        kind: 'invoice',
        issued: '2026-01-01',
        meanings: { document, rows: [] },
      });
      return ['base', 'tax', 'gross'].map((name) => dossier.amount(`SUM(BILLED().${name})`));
    };
    const eur = (value: string) => ({ value, currency: 'EUR' });
    expect(billed({ payable: eur('100'), 'tax-total': eur('17.36') })).toEqual(['82.64', '17.36', '100']);
    expect(billed({ payable: eur('100'), 'gross-total': eur('0'), 'tax-total': eur('0') })).toEqual([
      '100',
      '0',
      '100',
    ]);
    expect(billed({ 'gross-total': eur('121'), 'tax-total': eur('21') })).toEqual(['100', '21', '121']);
    expect(billed({ 'gross-total': eur('100'), prepaid: eur('0'), payable: eur('50') })).toEqual(['50', '0', '50']);
    expect(billed({})).toEqual(['0', '0', '0']);
    const dossier = new Dossier(plainDeal());
    dossier.filed.push({
      id: 'old',
      number: 'I-7',
      kind: 'invoice',
      issued: '2026-01-01',
      meanings: { document: {}, rows: [] },
    });
    expect(dossier.value('FIRST(REGISTERED("invoice")).open').type).toBe('blank');
  });

  it('what is left of an invoice is told by the rows that have something left, whether it bears tax or not', () => {
    const dossier = new Dossier(plainDeal());
    const row = (category: string, base: string, tax: string) => ({
      list: 'tax_rows',
      values: {
        'tax-category': category,
        'tax-rate': '0',
        'tax-base': { value: base, currency: 'EUR' },
        'tax-amount': { value: tax, currency: 'EUR' },
      },
    });
    dossier.filed.push({
      id: 'old',
      number: 'I-7',
      kind: 'invoice',
      issued: '2026-01-01',
      meanings: { document: {}, rows: [row('export', '100', '0'), row('none', '0', '0'), row('correction', '0', '5')] },
    });
    expect(dossier.value('TEXTJOIN(" ", true, BILLED().tax_category)')).toMatchObject({ value: 'export correction' });
  });

  it('invoiced less credited never exceeds the order, in any tax category and in all, whatever the history', () => {
    const { deals, ...records } = randomDeals(60, 4);
    const snapshots = deals.map(({ id }) => snapshotFrom({ ...records, deals }, id));
    const history = fc.array(fc.constantFrom<Kind>('deposit', 'deposit', 'final', 'credit'), {
      minLength: 1,
      maxLength: 7,
    });
    fc.assert(
      fc.property(fc.constantFrom(...snapshots), history, (snapshot, kinds) => {
        const dossier = new Dossier(snapshot);
        const order = dossier.order();
        for (const kind of kinds) {
          dossier.file(kind);
          for (const [key, { base, tax }] of dossier.open()) {
            const whole = order.get(key);
            expect(whole, key).toBeDefined();
            expect(within(base, whole!.base), `${key}: ${String(base)} of ${String(whole!.base)}`).toBe(true);
            expect(within(tax, whole!.tax), `${key}: ${String(tax)} of ${String(whole!.tax)}`).toBe(true);
          }
          const nets = [...order.values()].map(({ base }) => base.sign());
          const [open, total] = [dossier.amount('SUM(BILLED().gross)'), dossier.amount('total')].map((each) =>
            Decimal.of(each),
          );
          if (nets.every((sign) => sign >= 0))
            expect(within(open!, total!), `${String(open)} of ${String(total)}`).toBe(true);
          if (kind === 'final') expect(dossier.amount('SUM(BILLED().gross) - total')).toBe('0');
          if (kind === 'credit') expect(dossier.amount('SUM(BILLED().gross)')).toBe('0');
        }
      }),
      { numRuns: 300 },
    );
  });

  it('the order confirmation promises what the deposit invoice asks', () => {
    const { deals, ...records } = randomDeals(100, 5);
    const [confirmation, deposit] = ['order-confirmation', 'deposit-invoice'].map((id) =>
      shipped.templates.find((each) => each.id === id)!,
    );
    for (const { id } of deals) {
      const snapshot = snapshotFrom({ ...records, deals }, id);
      const input = new Dossier(snapshot).sheet('final').input;
      const [promised, asked] = [confirmation!, deposit!].map(({ sheet }) => new Sheet({ ...input, sheet }));
      expect(amount(promised!, 'deposit'), id).toBe(amount(asked!, 'due'));
    }
  });

  it('the shipped templates compute with the ready-made calculations', () => {
    const formulas = (sheet: FigureSheet) =>
      new Map([
        ...sheet.document.map((figure) => [figure.name, figure.formula] as const),
        ...sheet.lists.flatMap((list) => [
          [list.name, list.formula] as const,
          ...list.columns.map((column) => [`${list.name}.${column.name}`, column.formula] as const),
        ]),
      ]);
    for (const [template, kind] of [
      ['deposit-invoice', 'deposit'],
      ['credit-note', 'credit'],
      ['final-invoice', 'final'],
    ] as const) {
      const own = formulas(shipped.templates.find(({ id }) => id === template)!.sheet);
      for (const [name, formula] of formulas(SHEETS[kind])) {
        // The shipped final invoice holds nothing back, so what is due is all that is payable.
        if (['retention', 'retention_due', 'payable', 'due'].includes(name)) continue;
        expect([template, name, own.get(name)]).toEqual([template, name, formula]);
      }
    }
  });
});

/** Whether a part lies between zero and the whole. */
function within(part: Decimal, whole: Decimal): boolean {
  const [size, most] = [part.abs(), whole.abs()];
  return part.isZero() || (part.sign() === whole.sign() && size.comparedTo(most) <= 0);
}
