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

const LONGEST_NUMBER = 40;
/** Days and serials whose digits could be taken for each other's. */
const TRIED_DAYS = ['01-01', '01-11', '11-01', '11-11', '12-31'];
const TRIED_SERIALS = [1, 2, 11, 12, 21, 111, 1_111];

/**
 * Why a formula cannot number documents, in a sentence; undefined where it can. Serials begin anew each year, so the number has to
 * hold the year too, and no two documents may have the same. `year`: any.
 */
export function numberingFault(formula: string, year: number): string | undefined {
  const given = new Map<string, { serial: number; year: number }>();
  try {
    for (const its of [year, year + 1])
      for (const day of TRIED_DAYS)
        for (const serial of TRIED_SERIALS) {
          const number = documentNumber(formula, `${its}-${day}`, serial);
          if (number.length > LONGEST_NUMBER)
            return `It gives numbers of more than ${LONGEST_NUMBER} characters. Make them shorter.`;
          const other = given.get(number);
          if (other && other.year !== its)
            return `It gives ${number} in two years, as serials begin anew with a year. Put TEXT(document.issue_date, "yyyy") into it.`;
          if (other && other.serial !== serial)
            return `It gives ${number} to two documents of a year. Put SERIAL(4) into it, with a sign between the day and the serial.`;
          given.set(number, { serial, year: its });
        }
    return undefined;
  } catch (problem) {
    return (problem as Error).message;
  }
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
