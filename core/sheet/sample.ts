import type { FieldType, RecordSchema } from '../record/schema';
import type { RecordSnapshot } from '../record/snapshot';
import { DOCUMENT_ROOT, type CheckContext } from './check';
import { dayOf } from '../formula/date';
import type { FigureSheet } from './figure';
import type { SheetInput } from './sheet';
import { text } from '../formula/value';

/** The small deal that the examples of the reference are computed over: three lines, one of them optional. */
const SNAPSHOT: RecordSnapshot = {
  type: 'Deal',
  id: 'D-1',
  fields: {
    name: 'Vent renewal',
    currency: 'EUR',
    amount: { amount: '1250.00', currency: 'EUR' },
    heating: 'pipe',
    order_number: null,
    account: { type: 'Account', id: 'A-1', fields: { name: 'Fen Nurseries', country: 'NL' } },
    lines: [
      line('L-1', 'Vent motor', '12', '48.50', 'pc', { percent: '0.1' }, false),
      line('L-2', 'Fitting', '1.5', '620.00', 'day', null, false),
      line('L-3', 'Rain sensor', '1', '218.00', 'pc', null, true),
    ],
  },
};

function line(
  id: string,
  name: string,
  quantity: string,
  price: string,
  unit: string,
  discount: { percent: string } | null,
  optional: boolean,
): RecordSnapshot {
  const fields = {
    name, unit, discount, optional, description: null,
    quantity: { number: quantity }, unit_price: { amount: price, currency: 'EUR' },
    tax_category: 'standard', tax_rate: { percent: '0.21' },
  }; // prettier-ignore
  return { type: 'LineItem', id, fields };
}

const FIELDS: Readonly<Record<string, Readonly<Record<string, FieldType | [FieldType, string]>>>> = {
  Deal: {
    name: 'text', currency: 'text', amount: 'money', heating: 'text', order_number: 'text',
    account: ['record', 'Account'], lines: ['records', 'LineItem'],
  },
  Account: { name: 'text', country: 'text' },
  LineItem: {
    name: 'text', unit: 'text', description: 'text', quantity: 'number', unit_price: 'money', discount: 'percent',
    optional: 'boolean', tax_category: 'text', tax_rate: 'percent',
  },
}; // prettier-ignore

const SCHEMA: RecordSchema = {
  types: Object.fromEntries(
    Object.entries(FIELDS).map(([name, fields]) => [
      name,
      {
        name,
        label: name === 'LineItem' ? 'Line item' : name,
        fields: Object.fromEntries(
          Object.entries(fields).map(([field, kind]) => {
            const [type, target] = Array.isArray(kind) ? kind : [kind, undefined];
            return [
              field,
              { name: field, label: field.replaceAll('_', ' '), type, target, nullable: true, readonly: false },
            ];
          }),
        ),
      },
    ]),
  ),
};

const SHEET: FigureSheet = {
  currency: 'deal.currency',
  rounding: 'half-away',
  perLine: [
    { name: 'net', label: 'Net', formula: 'quantity * unit_price * (1 - discount ?? 0%)', type: 'amount' },
    {
      name: 'rebate_part',
      label: 'Part of the rebate',
      formula: 'PART(figures.rebate, lines[not optional], net)',
      type: 'amount',
    },
  ],
  lists: [],
  document: [{ name: 'rebate', label: 'Rebate', formula: 'SUM(lines[not optional].net) * 5%', type: 'amount' }],
  sums: [],
  tables: [
    {
      name: 'freight',
      label: 'Freight',
      columns: [
        { name: 'from', label: 'From kg', type: 'number' },
        { name: 'price', label: 'Price', type: 'money' },
      ],
      rows: [
        ['0', '18'],
        ['50', '65'],
        ['500', '240'],
      ],
    },
    {
      name: 'volume',
      label: 'Volume prices',
      columns: [
        { name: 'from', label: 'From', type: 'number' },
        { name: 'price', label: 'Price', type: 'money' },
      ],
      rows: [
        ['0', '2.00'],
        ['100', '1.80'],
        ['500', '1.50'],
      ],
    },
    {
      name: 'holidays',
      label: 'Holidays',
      columns: [{ name: 'date', label: 'Date', type: 'date' }],
      rows: [['2026-12-25'], ['2026-12-28'], ['2027-01-01']],
    },
    {
      name: 'exchange',
      label: 'Exchange rates',
      columns: [
        { name: 'date', label: 'From day', type: 'date' },
        { name: 'from', label: 'From', type: 'text' },
        { name: 'to', label: 'To', type: 'text' },
        { name: 'rate', label: 'Rate', type: 'number' },
      ],
      rows: [
        ['2026-11-01', 'EUR', 'CHF', '0.9375'],
        ['2026-12-01', 'EUR', 'CHF', '0.94'],
      ],
    },
  ],
};

/** What the examples of the reference are computed over. */
export const SAMPLE: SheetInput = {
  sheet: SHEET,
  schema: SCHEMA,
  snapshot: SNAPSHOT,
  root: 'deal',
  roots: { document: { issue_date: { type: 'date', day: dayOf('2026-11-23')! }, number: text('Q-2026-0042') } },
  locale: 'en-GB',
  today: dayOf('2026-11-23'),
  serial: 42,
  registered: [
    {
      id: 'i-1',
      number: 'I-2026-0007',
      kind: 'invoice',
      issued: '2026-10-02',
      meanings: { document: { 'gross-total': { value: '375.00', currency: 'EUR' } }, rows: [] },
    },
  ],
};

/** What the examples of the reference are checked against. */
export const SAMPLE_CONTEXT: CheckContext = {
  sheet: SHEET,
  schema: SCHEMA,
  record: { type: 'Deal', root: 'deal' },
  roots: { document: DOCUMENT_ROOT },
};
