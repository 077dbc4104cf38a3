import { describe, expect, it } from 'vitest';
import { demoRecords } from '../../demo/crm/index';
import { Decimal } from '../money/decimal';
import { demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { pathsNear, treeOf } from '../record/paths';
import { emptySample, SAMPLE_ID, sampleOf, sampleRecord, sampleSchema, type Sample } from './sample-record';
import { sampleFromJson, sampleFromRows } from './sample-text';
import type { FieldValue, RecordSnapshot } from '../record/snapshot';

const near = treeOf(
  pathsNear(demoSchema, 'Deal').map((path) => path.split('.')),
  demoSchema,
  'Deal',
);
const read = (sample: Sample) => sampleRecord(sample, demoSchema, 'Deal');
const fieldsOf = (sample: Sample) => {
  const { record, faults } = read(sample);
  expect(faults).toEqual([]);
  return record.fields;
};

/** The values of a record, without what names it in its source, and without pictures. */
function plain(value: FieldValue | undefined): unknown {
  if (Array.isArray(value)) return value.map((each) => plain(each as RecordSnapshot));
  if (value === null || value === undefined || typeof value !== 'object') return value ?? null;
  if ('image' in value) return null;
  if ('amount' in value) return { ...value, amount: Decimal.of(value.amount).toString() };
  if ('number' in value) return { number: Decimal.of(value.number).toString() };
  if ('percent' in value) return { percent: Decimal.of(value.percent).toString() };
  if (!('fields' in value)) return value;
  return Object.fromEntries(Object.entries(value.fields).map(([name, each]) => [name, plain(each)]));
}

describe('a made-up record', () => {
  it('made from any deal reads as that deal, pictures apart', () => {
    for (const { id } of demoRecords.deals) {
      const deal = demoSnapshot(id);
      const { record, faults } = read(JSON.parse(JSON.stringify(sampleOf(deal, near, demoSchema))) as Sample);
      expect({ id, faults }).toEqual({ id, faults: [] });
      const again = plain(record) as Record<string, unknown>;
      for (const [name, value] of Object.entries(plain(deal) as Record<string, unknown>)) {
        if (near.fields.has(name)) expect({ id, name, value: again[name] }).toEqual({ id, name, value });
      }
      const lines = deal.fields.lines as readonly RecordSnapshot[];
      const own = (again.lines as Record<string, unknown>[]).map((line) => [line.name, line.quantity, line.unit_price]);
      expect(own).toEqual(lines.map(({ fields }) => [fields.name, plain(fields.quantity), plain(fields.unit_price)]));
    }
  });

  it('has every field of its type, blank where nothing is written, and lists without items', () => {
    const { record } = read({ name: 'A trial' });
    expect(record).toMatchObject({ type: 'Deal', id: SAMPLE_ID });
    expect(record.fields).toMatchObject({ name: 'A trial', amount: null, account: null, lines: [] });
    expect(record.fields).not.toHaveProperty('files');
  });

  it('takes amounts in the record’s currency, percents in percent, and a related record by its name', () => {
    const fields = fieldsOf({
      name: 'A trial',
      currency: 'EUR',
      amount: '1234.50',
      discount_percent: 12.5,
      account: 'Fen Nurseries',
      lines: [{ name: 'Vent', quantity: 2, unit_price: '10.00 USD', discount: '5 %' }],
    });
    expect(fields.amount).toEqual({ amount: '1234.5', currency: 'EUR' });
    expect(fields.discount_percent).toEqual({ percent: '0.125' });
    expect(fields.account).toMatchObject({ type: 'Account', fields: { name: 'Fen Nurseries', street: null } });
    const [line] = fields.lines as readonly RecordSnapshot[];
    expect(line!.fields).toMatchObject({
      quantity: { number: '2' },
      unit_price: { amount: '10', currency: 'USD' },
      discount: { percent: '0.05' },
    });
  });

  it.each<[string, Sample, string]>([
    ['a field that there is not', { nme: 'A' }, '“nme” is no field of a deal. Is it “name”?'],
    ['a number in words', { lines: [{ name: 'A', quantity: 'two' }] }, 'lines 1, quantity: “two” is no number. Write it like 1234.5.'],
    ['a day that there is not', { closes_on: '2026-02-30' }, 'closes_on: “2026-02-30” is no day. Write it like 2026-11-23.'],
    ['an amount with commas', { amount: '1,234.50' }, 'amount: “1,234.50” is no amount. Write it like 1234.50, or 1234.50 USD.'],
    ['a picture', { site_photo: 'photo.jpg' }, 'site_photo: “photo.jpg” cannot be read: a sample has no pictures. Leave it out.'],
    ['a list of words', { lines: ['Vent'] }, 'lines 1, is no record: write it as an object of its fields.'],
  ])('tells of %s', (_, sample, sentence) => {
    const { faults, record } = read({ name: 'A', ...sample });
    expect(faults).toEqual([sentence]);
    expect(record.fields.name).toBe(sample.name ?? 'A');
  }); // prettier-ignore

  it('tells which values are allowed', () => {
    expect(read({ heating: 'steam' }).faults).toEqual([
      'heating: “steam” is not allowed. Write none, pipe, air or floor.',
    ]);
  });
});

describe('a sample as it is pasted', () => {
  it('in JSON is an object', () => {
    expect(sampleFromJson('{"name": "A trial"}')).toEqual({ sample: { name: 'A trial' } });
    expect(sampleFromJson('[1]')).toMatchObject({ refused: expect.stringContaining('begin it with “{”') as string });
    expect(sampleFromJson('{"name": }')).toMatchObject({ refused: expect.stringContaining('line 1') as string });
  });

  it('in rows has a line in each, and what stands once in the first', () => {
    const rows = [
      ['name', 'account.name', 'lines.name', 'lines.quantity', 'lines.product.name'],
      ['A trial', 'Fen Nurseries', 'Vent', '12', 'Vent motor'],
      ['', '', 'Fitting', '1.5', ''],
      ['', '', '', '', ''],
    ];
    const sample = sampleFromRows(rows, demoSchema, 'Deal');
    expect(JSON.parse(JSON.stringify(sample))).toEqual({
      name: 'A trial',
      account: { name: 'Fen Nurseries' },
      lines: [
        { name: 'Vent', quantity: '12', product: { name: 'Vent motor' } },
        { name: 'Fitting', quantity: '1.5' },
      ],
    });
    expect((fieldsOf(sample).lines as unknown[]).length).toBe(2);
  });

  it('is never taken for more than names', () => {
    const sample = sampleFromRows(
      [
        ['__proto__.name', 'constructor'],
        ['x', 'y'],
      ],
      demoSchema,
      'Deal',
    );
    expect(({} as { name?: string }).name).toBeUndefined();
    expect(read(sample).faults).toHaveLength(2);
  });
});

it('an empty one names every field that is read, and reads as a blank record', () => {
  const tree = treeOf([['name'], ['site_photo'], ['account', 'city'], ['lines', 'quantity']], demoSchema, 'Deal');
  const sample = emptySample(tree, demoSchema, 'Deal');
  expect(sample).toEqual({ name: '', account: { city: '', name: '' }, lines: [{ quantity: '', name: '' }] });
  expect(fieldsOf(sample)).toMatchObject({ name: null, account: { fields: { city: null } } });
});

it('the schema of what a template reads says its fields, with what they are called', () => {
  const tree = treeOf([['name'], ['amount'], ['heating'], ['lines', 'quantity']], demoSchema, 'Deal');
  expect(sampleSchema(tree, demoSchema, 'Deal')).toMatchObject({
    title: 'Deal',
    type: 'object',
    properties: {
      name: { title: 'Name', type: 'string' },
      amount: { title: 'Amount', type: ['number', 'string'] },
      heating: { enum: ['none', 'pipe', 'air', 'floor'] },
      lines: { type: 'array', items: { properties: { quantity: { type: ['number', 'string'] } } } },
    },
  });
});
