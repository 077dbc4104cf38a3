import { describe, expect, it } from 'vitest';
import { documentNumber, numberingFault, revisionNumber } from './number';

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

describe('a formula of a series', () => {
  it.each([
    ['"Q-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(4)'],
    ['SERIAL(6) & "/" & YEAR(document.issue_date)'],
    ['TEXT(document.issue_date, "yyyyMMdd") & "-" & SERIAL(1)'],
  ])('%s numbers documents', (formula) => {
    expect(numberingFault(formula, 2026)).toBeUndefined();
  });

  it.each([
    ['"Q-" & SERIAL(4)', 'It gives Q-0001 in two years'],
    ['"Q-" & TEXT(document.issue_date, "yyyy")', 'It gives Q-2026 to two documents of a year'],
    // The 1st with the serial 11, and the 11th with the serial 1.
    ['TEXT(document.issue_date, "yyyyMd") & SERIAL(1)', 'to two documents of a year'],
    [
      '"A number that nobody would want to write down: " & YEAR(document.issue_date) & SERIAL(4)',
      'more than 40 characters',
    ],
    ['"Q-" & deal.name', '“deal” is neither a field nor a figure.'],
    ['"Q-" &', 'formula'],
  ])('%s does not: %s', (formula, sentence) => {
    expect(numberingFault(formula, 2026)).toContain(sentence);
  });
});
