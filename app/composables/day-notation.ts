import { userLocale } from './in-words';

/** Days as people here write them in figures: 23/11/2026 or 11/23/2026, in the notation of the calendar component (`dd`, `mm`, `yy`). */
const PARTS: Partial<Record<Intl.DateTimeFormatPartTypes, string>> = { day: 'dd', month: 'mm', year: 'yy' };

/** How a day is written in figures where the user is. */
export function dayNotation(locale = userLocale()): string {
  const format = new Intl.DateTimeFormat(locale, {
    day: '2-digit',
    month: '2-digit',
    year: 'numeric',
    calendar: 'gregory',
  });
  return format
    .formatToParts(new Date(2026, 10, 23))
    .map(({ type, value }) => PARTS[type] ?? value.replace(/[\u200e\u200f]/g, ''))
    .join('');
}

const padded = (number: number, length = 2) => String(number).padStart(length, '0');

/** A day in a notation. */
export const dayInFigures = (day: Date, notation = dayNotation()): string =>
  notation
    .replace('dd', padded(day.getDate()))
    .replace('mm', padded(day.getMonth() + 1))
    .replace('yy', padded(day.getFullYear(), 4));

/** A day of ISO 8601 as the calendar component holds it, at midnight where the user is. */
export function dateOfDay(iso: string | undefined): Date | null {
  const [, year, month, day] = /^(\d{4})-(\d{2})-(\d{2})$/.exec(iso ?? '') ?? [];
  return year ? new Date(Number(year), Number(month) - 1, Number(day)) : null;
}

/** The same, back. */
export const dayOfDate = (date: Date): string =>
  `${padded(date.getFullYear(), 4)}-${padded(date.getMonth() + 1)}-${padded(date.getDate())}`;
