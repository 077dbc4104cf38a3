const DAY = 86_400_000;

/** The day number (from 1970-01-01) of an ISO 8601 calendar date; undefined if there is no such day. */
export function dayOf(iso: string): number | undefined {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(iso);
  if (!match) return undefined;
  const time = Date.UTC(Number(match[1]), Number(match[2]) - 1, Number(match[3]));
  const day = time / DAY;
  return isoOf(day) === iso ? day : undefined;
}

/** ISO 8601 calendar date of a day number. */
export function isoOf(day: number): string {
  return new Date(day * DAY).toISOString().slice(0, 10);
}

/** A day in the words of a locale: `23 November 2026` or `23 Nov 2026`. */
export function formatDay(day: number, locale: string, month: 'long' | 'short'): string {
  return intlDay(day, locale, { day: 'numeric', month, year: 'numeric' });
}

const PATTERN_PART = /'((?:[^']|'')*)'|yyyy|yy|y|MMMM|MMM|MM|M|dd|d|EEEE|EEE|[A-Za-z]+|[^A-Za-z']+/g;

/**
 * A day by a Unicode LDML date pattern (UTS 35 part 4): y M d E in their usual widths, text in apostrophes.
 * @throws Error with a sentence for a pattern that says something else.
 */
export function formatDayPattern(day: number, pattern: string, locale: string): string {
  const iso = isoOf(day);
  const [year, month, date] = iso.split('-') as [string, string, string];
  return pattern.replace(PATTERN_PART, (part, quoted: string | undefined) => {
    if (quoted !== undefined) return quoted === '' ? "'" : quoted.replaceAll("''", "'");
    switch (part) {
      case 'yyyy':
      case 'y': return year; // prettier-ignore
      case 'yy': return year.slice(2); // prettier-ignore
      case 'MMMM': return intlDay(day, locale, { month: 'long' }); // prettier-ignore
      case 'MMM': return intlDay(day, locale, { month: 'short' }); // prettier-ignore
      case 'MM': return month; // prettier-ignore
      case 'M': return String(Number(month)); // prettier-ignore
      case 'dd': return date; // prettier-ignore
      case 'd': return String(Number(date)); // prettier-ignore
      case 'EEEE': return intlDay(day, locale, { weekday: 'long' }); // prettier-ignore
      case 'EEE': return intlDay(day, locale, { weekday: 'short' }); // prettier-ignore
    }
    if (/^[A-Za-z]/.test(part)) throw new Error(unknownLetters(part, pattern));
    return part;
  });
}

function unknownLetters(part: string, pattern: string): string {
  if (/^m+$/.test(part)) return `In the pattern “${pattern}”, months are MM; mm would be minutes.`;
  return `“${part}” in the pattern “${pattern}” is not understood; plain words go between apostrophes.`;
}

const dayFormatters = new Map<string, Intl.DateTimeFormat>();

function intlDay(day: number, locale: string, options: Intl.DateTimeFormatOptions): string {
  const key = locale + JSON.stringify(options);
  let formatter = dayFormatters.get(key);
  if (!formatter) {
    formatter = new Intl.DateTimeFormat(locale, { ...options, timeZone: 'UTC', calendar: 'gregory' });
    dayFormatters.set(key, formatter);
  }
  return formatter.format(new Date(day * DAY));
}
