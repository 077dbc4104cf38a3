import { dayOf } from '../formula/date';
import { Sheet } from '../sheet/sheet';
import { error, type Value } from '../formula/value';

/** A number of a later revision, as it is printed: `Q-2026-0042 rev. B`. The first, of revision 0, has its number alone. */
export function revisionNumber(number: string, revision: number): string {
  return revision === 0 ? number : `${number} rev. ${letters(revision)}`;
}

/** A, B, … Z, AA, AB, … from zero, as columns are named. */
function letters(at: number): string {
  const rest = Math.floor(at / 26);
  return (rest > 0 ? letters(rest - 1) : '') + String.fromCharCode(65 + (at % 26));
}

/**
 * A document's number by its series' formula, which may read the issue date and the serial and nothing else.
 * @throws Error with a sentence when the formula gives no text.
 */
export function documentNumber(formula: string, issueDate: string, serial: number): string {
  const day = dayOf(issueDate);
  const issued: Value = day === undefined ? error(`The issue date ${issueDate} is not a date.`) : { type: 'date', day };
  const sheet = new Sheet({
    sheet: { currency: '""', rounding: 'half-away', perLine: [], lists: [], document: [], sums: [] },
    schema: { types: {} },
    snapshot: { type: 'Series', id: 'series', fields: {} },
    root: 'series',
    roots: { document: { issue_date: issued } },
    locale: 'en',
    serial,
  });
  const { value } = sheet.evaluate('number', formula);
  if (value.type === 'text' && value.value.trim() !== '') return value.value;
  throw new Error(value.type === 'error' ? value.message : 'The series’ formula gives no number.');
}
