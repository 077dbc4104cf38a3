import { expect, it } from 'vitest';
import { formulaWords, placeholderWords } from './formula-words';

it.each([
  ['deal.account.family_name', 'family name'],
  ['LABEL("Your order")', 'Your order'],
  ['SUM(lines.net)', 'net'],
  ['1 + 2', '1 + 2'],
  ['', ''],
])('%s is called “%s”', (formula, words) => expect(formulaWords(formula)).toBe(words));

it('texts are read with their values by name', () => {
  expect(placeholderWords('=[LABEL("Net")] =[deal.currency]')).toBe('Net currency');
  expect(placeholderWords('For =[FIRST(lines[a = "]"]).name].')).toBe('For name.');
  expect(placeholderWords('For =[deal.name')).toBe('For =[deal.name');
});
