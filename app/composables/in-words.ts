import { dayOf, formatDay } from '#core/formula/date';
import { Decimal } from '#core/money/decimal';
import { formatMoney } from '#core/money/format';

/** The user's own locale, for the screens; documents have their edition's. */
export const userLocale = () => (typeof navigator === 'undefined' ? 'en-GB' : navigator.language || 'en-GB');

/** A day, shortly: `14 Dec 2026`. */
export function dayText(iso: string): string {
  const day = dayOf(iso);
  return day === undefined ? iso : formatDay(day, userLocale(), 'short');
}

let moments: Intl.DateTimeFormat | undefined;

/** A moment, shortly: `23 Nov, 14:05`. */
export function momentText(iso: string): string {
  // Made once: making one takes longer than writing a hundred moments.
  moments ??= new Intl.DateTimeFormat(userLocale(), {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  });
  return moments.format(new Date(iso));
}

/** A sum of the register; dash where a document has none. */
export function sumText(amount: string | null, currency: string | null): string {
  return amount && currency ? formatMoney(Decimal.of(amount), currency, userLocale()) : '–';
}
