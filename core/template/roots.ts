import { dayOf } from '../formula/date';
import type { SheetInput } from '../sheet/sheet';
import { error, text, type Value } from '../formula/value';
import { phrase } from '../words/phrases';
import { ASK, askRoot, type Answer, type Ask } from './asks';
import type { HouseStyle } from './house-style';

/** What stands for the number on a proof, in the words of a locale. */
export const numberToCome = (locale: string): string => phrase('number assigned when filed', locale);

/** What a document is, besides the record it is filled from. */
export interface DocumentFacts {
  company: HouseStyle['company'];
  /** ISO 8601 day. */
  issueDate: string;
  edition: string;
  /** BCP 47. */
  locale: string;
  /** Absent until filing has given one. */
  number?: string;
  /** What the template asks for, and what is said. */
  asks?: readonly Ask[];
  answers?: readonly Answer[];
}

/** The roots `company`, `document` and `ask` of a document's formulas. */
export function documentRoots({
  company,
  issueDate,
  edition,
  locale,
  number,
  asks,
  answers,
}: DocumentFacts): SheetInput['roots'] {
  const day = dayOf(issueDate);
  const issued: Value = day === undefined ? error(`The issue date ${issueDate} is not a date.`) : { type: 'date', day };
  return {
    company: Object.fromEntries(Object.entries(company).map(([key, value]) => [key, text(value)])),
    document: { number: text(number ?? numberToCome(locale)), issue_date: issued, edition: text(edition) },
    [ASK]: askRoot(asks, answers),
  };
}
