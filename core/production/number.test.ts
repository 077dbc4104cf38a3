import { expect, it } from 'vitest';
import { documentNumber } from './number';

it('a document’s number is what its series’ formula makes of the day and the serial', () => {
  const formula = '"Q-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(4)';
  expect(documentNumber(formula, '2026-11-23', 42)).toBe('Q-2026-0042');
  expect(documentNumber(formula, '2026-11-23', 12345)).toBe('Q-2026-12345');
});

it.each([
  ['document.issue_date', '2026-11-23', 'The series’ formula gives no number.'],
  ['"  "', '2026-11-23', 'The series’ formula gives no number.'],
  ['"Q-" & deal.name', '2026-11-23', '“deal” is neither a field nor a figure.'],
  ['"Q-" & YEAR(document.issue_date)', '23 November', 'The issue date 23 November is not a date.'],
])('%s on %s is refused: %s', (formula, day, sentence) => {
  expect(() => documentNumber(formula, day, 1)).toThrow(sentence);
});
