import { inDigitsOf } from '../money/number-symbols';
import { own } from '../record/own';

const DAY = 86_400_000;

/** The day number (from 1970-01-01) of an ISO 8601 calendar date; undefined if there is no such day. */
export function dayOf(iso: string): number | undefined {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(iso);
  if (!match) return undefined;
  const day = dayFrom(Number(match[1]), Number(match[2]), Number(match[3]));
  return isoOf(day) === iso ? day : undefined;
}

/** ISO 8601 calendar date of a day number. */
export function isoOf(day: number): string {
  return new Date(day * DAY).toISOString().slice(0, 10);
}

/** The day number of a year, a month counted from 1 and a day; months and days beyond their ends count on. */
export function dayFrom(year: number, month: number, date: number): number {
  const time = new Date(0);
  time.setUTCFullYear(year, month - 1, date);
  return Math.round(time.getTime() / DAY);
}

/** Year, month from 1, and day of the month of a day number. */
export function partsOf(day: number): { year: number; month: number; date: number } {
  const time = new Date(day * DAY);
  return { year: time.getUTCFullYear(), month: time.getUTCMonth() + 1, date: time.getUTCDate() };
}

/** The same day of the month some months on, or the last day of that month where it has no such day. */
export function addMonths(day: number, months: number): number {
  const { year, month, date } = partsOf(day);
  return Math.min(dayFrom(year, month + months, date), dayFrom(year, month + months + 1, 0));
}

/** Days from Monday: 0 is Monday, 6 is Sunday. */
export function weekdayOf(day: number): number {
  return (((day + 3) % 7) + 7) % 7;
}

/** A day in the words of a locale: `23 November 2026` or `23 Nov 2026`. */
export function formatDay(day: number, locale: string, month: 'long' | 'short'): string {
  return intl(day * DAY, 'UTC', locale, { day: 'numeric', month, year: 'numeric' });
}

/** A day with the fields that are asked for, as a locale writes them: `November 2026`. */
export const formatDayBy = (day: number, locale: string, fields: Intl.DateTimeFormatOptions): string =>
  intl(day * DAY, 'UTC', locale, fields);

/** A moment in the words of a locale, in its zone: `23 November 2026, 14:05`. */
export function formatMoment({ at, zone }: Moment, locale: string): string {
  return intl(at, zone, locale, { day: 'numeric', month: 'long', year: 'numeric', hour: '2-digit', minute: '2-digit' });
}

interface Moment {
  at: number;
  zone: string;
}

/** The date formats that every locale has a pattern of its own for (CLDR). */
const STYLES: ReadonlySet<string> = new Set(['short', 'medium', 'long', 'full']);
export const isDateStyle = (pattern: string): boolean => STYLES.has(pattern);

/** A quoted text, a run of one letter, or anything else. */
const PATTERN_PART = /'((?:[^']|'')*)'|([A-Za-z])\2*|[^A-Za-z']+/g;

/**
 * A day by a Unicode LDML date pattern (UTS 35 part 4): y, M, L, d and E in the widths that they have there, text in
 * apostrophes; or by one of the locale's own formats, `short` to `full`.
 * @throws Error with a sentence for a pattern that says something else.
 */
export function formatDayPattern(day: number, pattern: string, locale: string): string {
  if (isDateStyle(pattern)) return intl(day * DAY, 'UTC', locale, { dateStyle: pattern as 'short' });
  return byPattern({ at: day * DAY, zone: 'UTC' }, pattern, locale, false);
}

/** A moment by a pattern as a day's, with `H`, `m` and `s` besides. @throws Error with a sentence */
export function formatMomentPattern(moment: Moment, pattern: string, locale: string): string {
  if (isDateStyle(pattern)) {
    return intl(moment.at, moment.zone, locale, { dateStyle: pattern as 'short', timeStyle: 'short' });
  }
  return byPattern(moment, pattern, locale, true);
}

function byPattern(moment: Moment, pattern: string, locale: string, timed: boolean): string {
  const parts = partsIn(moment);
  const hasHour = timed && /H/.test(pattern.replace(/'[^']*'/g, ''));
  return pattern.replace(PATTERN_PART, (part, quoted: string | undefined, letter: string | undefined) => {
    if (quoted !== undefined) return quoted === '' ? "'" : quoted.replaceAll("''", "'");
    if (letter === undefined) return part;
    const isTime = 'Hms'.includes(letter);
    const written = isTime && !(letter === 'H' ? timed : hasHour) ? undefined : field(part, parts, moment, locale);
    if (written === undefined) throw new Error(unknownLetters(part, pattern));
    return inDigitsOf(locale, written);
  });
}

/** One field of a date pattern; undefined for one that is not known. */
function field(part: string, parts: DateParts, { at, zone }: Moment, locale: string): string | undefined {
  const padded = (value: string) => String(Number(value)).padStart(part.length, '0');
  if (/^y+$/.test(part)) return part === 'yy' ? parts.year.slice(-2) : padded(parts.year);
  switch (part) {
    case 'M':
    case 'MM':
    case 'L':
    case 'LL':
      return padded(parts.month);
    case 'MMM':
    case 'MMMM':
      return monthBesideDay(at, zone, locale, part === 'MMM' ? 'short' : 'long');
    case 'LLL':
      return intl(at, zone, locale, { month: 'short' });
    case 'LLLL':
      return intl(at, zone, locale, { month: 'long' });
    case 'MMMMM':
    case 'LLLLL':
      return intl(at, zone, locale, { month: 'narrow' });
    case 'd':
    case 'dd':
      return padded(parts.day);
    case 'E':
    case 'EE':
    case 'EEE':
      return intl(at, zone, locale, { weekday: 'short' });
    case 'EEEE':
      return intl(at, zone, locale, { weekday: 'long' });
    case 'EEEEE':
      return intl(at, zone, locale, { weekday: 'narrow' });
    case 'H':
    case 'HH':
      return padded(parts.hour);
    case 'm':
    case 'mm':
      return padded(parts.minute);
    case 's':
    case 'ss':
      return padded(parts.second);
    default:
      return undefined;
  }
}

/**
 * A month's name in the form that it has in dates (UTS 35: the format form, for `M`): listopada, not listopad. Where a
 * locale writes months in digits in such dates, the name that stands alone.
 */
function monthBesideDay(at: number, zone: string, locale: string, month: 'long' | 'short'): string {
  const options = { day: 'numeric', month, year: 'numeric' } as const;
  const parts = formatterOf(locale, { ...options, timeZone: zone, calendar: 'gregory' }).formatToParts(new Date(at));
  const name = parts.find(({ type }) => type === 'month')?.value ?? '';
  return /\p{L}/u.test(name) ? name : intl(at, zone, locale, { month });
}

type DateParts = Record<'year' | 'month' | 'day' | 'hour' | 'minute' | 'second', string>;

/** Calendar and clock of a moment in its zone, as ASCII digits. */
function partsIn({ at, zone }: Moment): DateParts {
  const parts = formatterOf('en-GB', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    hourCycle: 'h23',
  }).formatToParts(new Date(at));
  const part = (type: string) => parts.find((each) => each.type === type)?.value ?? '';
  return {
    year: part('year').padStart(4, '0'),
    month: part('month'),
    day: part('day'),
    hour: part('hour'),
    minute: part('minute'),
    second: part('second'),
  };
}

/** What a letter that is not understood was probably meant to be. */
const MEANT: Readonly<Record<string, string>> = {
  m: 'months are MM; mm would be minutes',
  M: 'a month is M or MM in digits, MMM or MMMM in words',
  d: 'a day is d or dd; weekdays are EEE or EEEE',
  D: 'a day of the month is d or dd',
  E: 'a weekday is EEE or EEEE',
  e: 'a weekday is EEE or EEEE',
  Y: 'years are yyyy',
  u: 'years are yyyy',
  h: 'hours are HH',
};

function unknownLetters(part: string, pattern: string): string {
  if (/^m+$/.test(part)) return `In the pattern “${pattern}”, ${MEANT.m}.`;
  if (/^[Hs]{1,2}$/.test(part)) return `The pattern “${pattern}” asks for a time of day, but this is a date.`;
  const meant = own(MEANT, part[0]!);
  const advice = meant ?? 'plain words go between apostrophes';
  return `“${part}” in the pattern “${pattern}” is not understood; ${advice}.`;
}

const formatters = new Map<string, Intl.DateTimeFormat>();

function intl(at: number, timeZone: string, locale: string, options: Intl.DateTimeFormatOptions): string {
  return formatterOf(locale, { ...options, timeZone, calendar: 'gregory' }).format(new Date(at));
}

function formatterOf(locale: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = locale + JSON.stringify(options);
  let formatter = formatters.get(key);
  if (!formatter) formatters.set(key, (formatter = new Intl.DateTimeFormat(locale, options)));
  return formatter;
}
