import { describe, expect, it } from 'vitest';
import { demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { usedWords } from './used-words';

describe('a used value in words', () => {
  const deal = demoSnapshot('D-1187');
  it.each([
    ['deal.lines{D-1187-1}.unit_price', '-1234.5 GBP', '−£1,234.50'],
    ['deal.lines{D-1187-1}.unit_price', '7', '7'],
    ['deal.discount_percent', '0.125', '12.5\u202f%'],
    ['deal.validity_days', '30', '30'],
    ['deal.closes_on', '2026-12-01', '1 December 2026'],
    ['deal.quote_language', 'nl', 'Dutch'],
    ['deal.quote_language', 'xx', 'xx'],
    ['deal.scope_note', '<p>As <b>agreed</b></p>', 'As agreed'],
    ['deal.name', 'A name', 'A name'],
    ['deal.closes_on', '', ''],
    ['deal.nothing', 'as it is', 'as it is'],
    ['when heated', 'true', 'true'],
  ])('of %s is written as people write it: %s', (path, text, words) => {
    expect(usedWords(path, text, deal, demoSchema)).toBe(words);
  });
});
