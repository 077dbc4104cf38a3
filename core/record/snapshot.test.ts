import { expect, it } from 'vitest';
import { saysSame, type RecordSnapshot } from './snapshot';

const line = (id: string, price: string, version: string): RecordSnapshot => ({
  type: 'LineItem',
  id,
  version,
  fields: { unit_price: { number: price }, version: 'a field of that name' },
});
const deal = (lines: readonly RecordSnapshot[], version = '1'): RecordSnapshot => ({
  type: 'Deal',
  id: 'D-1',
  version,
  fields: { lines, name: 'Two gates', account: { type: 'Account', id: 'A-1', version, fields: { city: null } } },
});

it('two readings say the same whatever their entity tags and the order of their fields', () => {
  const one = deal([line('L-1', '10', '1')]);
  expect(saysSame(one, deal([line('L-1', '10', '2')], '2'))).toBe(true);
  expect(saysSame(one, { ...one, fields: Object.fromEntries(Object.entries(one.fields).reverse()) })).toBe(true);
});

it('two readings differ by a value, by a line, by the order of lines, and by a field that is called as a tag is', () => {
  const [first, second] = [line('L-1', '10', '1'), line('L-2', '20', '1')];
  expect(saysSame(deal([first]), deal([line('L-1', '11', '1')]))).toBe(false);
  expect(saysSame(deal([first]), deal([first, second]))).toBe(false);
  expect(saysSame(deal([first, second]), deal([second, first]))).toBe(false);
  expect(saysSame(first, { ...first, fields: { ...first.fields, version: 'another' } })).toBe(false);
});
