import { minorUnit } from './currency';
import type { Decimal } from './decimal';

const formatters = new Map<string, Intl.NumberFormat>();

/**
 * A decimal in the digits, grouping and decimal sign of a locale, exact to the last digit.
 * `fewest` and `most` bound the decimals printed; the value must already be rounded if it may not be shortened.
 */
export function formatDecimal(value: Decimal, locale: string, fewest: number, most = fewest): string {
  const key = `${locale}/${fewest}/${most}`;
  let formatter = formatters.get(key);
  if (!formatter) {
    formatter = new Intl.NumberFormat(locale, { minimumFractionDigits: fewest, maximumFractionDigits: most });
    formatters.set(key, formatter);
  }
  // Rounded here and given as text: Intl reads decimal strings exactly, where a number would pass through binary fractions.
  return formatter.format(value.round(most).toFixed() as Intl.StringNumericLiteral).replace('-', '−');
}

/** A sum without its currency: `18,436.80`. Unit prices keep the decimals they came with. */
export function formatAmount(value: Decimal, currency: string, locale: string): string {
  const fewest = minorUnit(currency);
  return formatDecimal(value, locale, fewest, Math.max(fewest, Math.min(value.decimalPlaces(), 12)));
}

/** A sum with its ISO 4217 code behind a no-break space: `18,436.80 GBP`. */
export function formatMoney(value: Decimal, currency: string, locale: string): string {
  return `${formatAmount(value, currency, locale)}\u00a0${currency}`;
}

/** A sum with the sign of its currency where the locale has it: `£18,436.80`. */
export function formatWithSymbol(value: Decimal, currency: string, locale: string): string {
  const places = { minimumFractionDigits: 0, maximumFractionDigits: 0 };
  const parts = new Intl.NumberFormat(locale, {
    style: 'currency',
    currency,
    currencyDisplay: 'narrowSymbol',
    ...places,
  }).formatToParts(0);
  const amount = formatAmount(value.abs(), currency, locale);
  const written = parts.map((part) => (part.type === 'integer' ? amount : part.value)).join('');
  return value.isNegative() ? `−${written}` : written;
}

/** A fraction as a percentage: `0.125` is `12.5 %`, with a narrow no-break space; with so many decimals where that is said. */
export function formatPercent(fraction: Decimal, locale: string, decimals?: number): string {
  return `${formatDecimal(fraction.shifted(2), locale, decimals ?? 0, decimals ?? 6)}\u202f%`;
}
