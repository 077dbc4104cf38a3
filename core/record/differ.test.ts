import { expect, it } from 'vitest';
import { demoRecords } from '../../demo/crm/index';
import { demoSchema, demoSnapshot, withFields } from '../../tests/demo-snapshot';
import { mostDifferent } from './differ';

const deal = demoSnapshot('D-1187');

it('takes one of each before two alike', () => {
  const alike = Array.from({ length: 5 }, (_, at) => ({ ...deal, id: `same-${at}` }));
  const other = { ...withFields(deal, { heating: 'floor', site_works: null, lines: [] }), id: 'other' };
  const [first, second, ...rest] = mostDifferent([...alike, other], 3, demoSchema);
  expect(first!.id).toMatch(/^same/);
  expect(second!.id).toBe('other');
  expect(rest).toHaveLength(1);
});

it('gives all where there are few, and none of none', () => {
  expect(mostDifferent([deal], 10, demoSchema)).toEqual([deal]);
  expect(mostDifferent([], 10, demoSchema)).toEqual([]);
});

it('finds among the demo’s deals what a template has to stand, be it rare', () => {
  const ten = mostDifferent(
    demoRecords.deals.map(({ id }) => demoSnapshot(id)),
    10,
    demoSchema,
  );
  const text = JSON.stringify(ten);
  expect(new Set(ten.map(({ id }) => id)).size).toBe(10);
  expect(new Set(ten.map(({ fields }) => fields.currency)).size).toBeGreaterThan(2);
  const held = [
    '"currency":null',
    '"unit_price":null',
    '"trade_in":true',
    '"optional":true',
    '"currency":"JPY"',
    '"Little Vale"',
  ].filter((each) => text.includes(each));
  expect(held).toHaveLength(6);
});
