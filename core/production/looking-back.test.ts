import { describe, expect, it } from 'vitest';
import type { RegisteredDocument } from '../formula/functions/register';
import type { Meanings, MeaningAmount } from '../formula/meanings';
import { filedBefore } from './findings/filed-before';
import { overCredited } from './findings/over-credited';

const gbp = (value: string): MeaningAmount => ({ value, currency: 'GBP' });
const document = (number: string, kind: string, rows: Meanings['rows'] = []): RegisteredDocument => ({
  id: number,
  number,
  kind,
  issued: '2026-11-02',
  meanings: { document: {}, rows },
});
const taxRow = (base: string, tax: string) => ({
  list: 'tax_rows',
  values: { 'tax-category': 'standard', 'tax-rate': '0.2', 'tax-base': gbp(base), 'tax-amount': gbp(tax) },
});
const creditRow = (invoice: string, net: string, tax: string) => ({
  list: 'credited',
  values: {
    'preceding-invoice': invoice,
    'tax-category': 'standard',
    'tax-rate': '0.2',
    'line-net': gbp(net),
    'credited-tax': gbp(tax),
  },
});

describe('a credit note', () => {
  const invoices = [
    document('I-1', 'invoice', [taxRow('100.00', '20.00')]),
    document('I-2', 'invoice', [taxRow('50.00', '10.00')]),
  ];
  const sentences = (rows: Meanings['rows'], registered = invoices) =>
    overCredited({ document: {}, rows }, registered).map(
      ({ severity, sentence }) => `${severity}: ${sentence.replaceAll('\u00a0', ' ')}`,
    );

  it('credits no more of an invoice than it asked', () => {
    expect(sentences([creditRow('I-1', '100.00', '20.00'), creditRow('I-2', '10.00', '2.00')])).toEqual([]);
    expect(sentences([creditRow('I-1', '60.00', '12.00'), creditRow('I-1', '40.01', '8.00')])).toEqual([
      'stops: 120.00 GBP are open of invoice I-1, and this credits 120.01 GBP. Credit less.',
    ]);
  });

  it('credits no more than earlier credit notes have left', () => {
    const note = document('C-1', 'credit note', [creditRow('I-1', '70.00', '14.00')]);
    expect(sentences([creditRow('I-1', '30.00', '6.00')], [...invoices, note])).toEqual([]);
    expect(sentences([creditRow('I-1', '30.00', '6.01')], [...invoices, note])).toEqual([
      'stops: 36.00 GBP are open of invoice I-1, and this credits 36.01 GBP. Credit less.',
    ]);
  });

  it('names an invoice that counts', () => {
    expect(sentences([creditRow('I-9', '1.00', '0.20')])).toEqual([
      'stops: No invoice I-9 was filed for this record, or it is void. Credit one that counts.',
    ]);
  });
});

describe('a current document of the same kind', () => {
  const found = (kind: string, asNew = false) =>
    filedBefore(kind, [document('X-1', kind), document('X-2', kind), document('Y-1', 'other')], {
      called: 'deal',
      asNew,
    });

  it('is told, unless the new one is its next revision, or there may be several', () => {
    expect(found('receipt')).toMatchObject({
      severity: 'warns',
      sentence: expect.stringContaining('X-2 of 2 Nov 2026 is the current receipt of this deal.') as string,
    });
    expect(found('quote')).toBeUndefined();
    expect(found('quote', true)).toMatchObject({ title: 'A quote was filed before' });
    expect(['letter', 'invoice', 'credit note'].map((kind) => found(kind))).toEqual([undefined, undefined, undefined]);
    expect(filedBefore('receipt', [], { called: 'deal', asNew: false })).toBeUndefined();
  });
});
