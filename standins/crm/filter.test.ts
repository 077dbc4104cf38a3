import { describe, expect, it } from 'vitest';
import { compileFilter, QueryError } from './filter';
import { readOptions } from './query';

const RECORD: Record<string, unknown> = {
  name: 'O’Dorran',
  stage: 'Won',
  amount: '1250.50',
  'account/name': "Fern's",
  order: null,
};
const passes = (filter: string) => compileFilter(filter)((path) => RECORD[path]);

describe('$filter', () => {
  it.each([
    ["stage eq 'Won'", true],
    ["stage ne 'Won'", false],
    ['amount gt 999', true],
    ['amount le 1250.5', true],
    ["stage in ('Lost','Won')", true],
    ["account/name eq 'Fern''s'", true],
    ["contains(tolower(name),'dorran')", true],
    ["startswith(name,'x')", false],
    ['order eq null', true],
    ["not (stage eq 'Won') or amount lt 2000 and stage eq 'Won'", true],
  ])('%s: %s', (filter, expected) => {
    expect(passes(filter)).toBe(expected);
  });

  it.each(["stage eq 'open", 'stage', 'stage like 1', "stage eq 'a' 'b'"])('refuses %s', (filter) => {
    expect(() => passes(filter)).toThrow(QueryError);
  });
});

it('reads nested $expand', () => {
  const nested = 'account($select=name,city),lines($select=id;$expand=product($select=sku);$orderby=position)';
  const { expand } = readOptions([['$expand', nested]]);
  expect(expand.get('account')).toMatchObject({ select: ['name', 'city'] });
  expect(expand.get('lines')).toMatchObject({ select: ['id'], orderby: 'position' });
  expect(expand.get('lines')!.expand.get('product')).toMatchObject({ select: ['sku'] });
});
