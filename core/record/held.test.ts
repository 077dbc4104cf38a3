import { expect, it } from 'vitest';
import { heldValues } from './held';
import type { FieldValue, RecordSnapshot } from './snapshot';

const record = (id: string, fields: Record<string, FieldValue>): RecordSnapshot => ({ type: 'Order', id, fields });

it('counts how many records hold each value, blanks not at all', () => {
  const records = [
    record('1', { kind: 'roof', works: { choices: ['crane', 'power'] } }),
    record('2', { kind: 'roof', works: { choices: [] } }),
    record('3', { kind: null, works: { choices: ['power'] } }),
    record('4', { kind: '', works: null }),
    record('5', { kind: 'door' }),
  ];
  expect(heldValues(records, ['kind'])).toEqual([
    { value: 'roof', count: 2 },
    { value: 'door', count: 1 },
  ]);
  expect(heldValues(records, ['works'])).toEqual([
    { value: 'power', count: 2 },
    { value: 'crane', count: 1 },
  ]);
});

it('follows related records and lists, and counts a record once', () => {
  const line = (kind: string) => record('l', { kind });
  const records = [record('1', { customer: record('c', { land: 'NL' }), lines: [line('a'), line('a'), line('b')] })];
  expect(heldValues(records, ['customer', 'land'])).toEqual([{ value: 'NL', count: 1 }]);
  expect(heldValues(records, ['lines', 'kind'])).toEqual([
    { value: 'a', count: 1 },
    { value: 'b', count: 1 },
  ]);
  expect(heldValues(records, ['customer'])).toEqual([]);
});
