import { expect, it } from 'vitest';
import { documentNumber, revisionNumber } from './number';

it('a document’s number is what its series’ formula makes of the day and the serial', () => {
  const formula = '"Q-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(4)';
  expect(documentNumber(formula, '2026-11-23', 42)).toBe('Q-2026-0042');
  expect(documentNumber(formula, '2026-11-23', 12345)).toBe('Q-2026-12345');
});

it('later revisions keep the number, and are told apart by letters', () => {
  const told = [0, 1, 2, 25, 26, 27, 51, 52, 701, 702].map((revision) => revisionNumber('Q-1', revision));
  expect(told).toEqual([
    'Q-1',
    ...['B', 'C', 'Z', 'AA', 'AB', 'AZ', 'BA', 'ZZ', 'AAA'].map((each) => `Q-1 rev. ${each}`),
  ]);
});

it.each([
  ['document.issue_date', '2026-11-23', 'The series’ formula gives no number.'],
  ['"  "', '2026-11-23', 'The series’ formula gives no number.'],
  ['"Q-" & deal.name', '2026-11-23', '“deal” is neither a field nor a figure.'],
  ['"Q-" & YEAR(document.issue_date)', '23 November', 'The issue date 23 November is not a date.'],
])('%s on %s is refused: %s', (formula, day, sentence) => {
  expect(() => documentNumber(formula, day, 1)).toThrow(sentence);
});
