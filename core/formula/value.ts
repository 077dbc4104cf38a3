import { formatAmount, formatDecimal, formatMoney, formatPercent, formatWithSymbol } from '../money/format';
import { Decimal } from '../money/decimal';
import { formatDay, formatDayBy, formatMoment, isoOf } from './date';
import type { PictureField } from '../record/snapshot';
import { plainText } from '../rich/rich-text';
import { phrase } from '../words/phrases';
import type { Row } from './row';
import { DATE_SKELETONS, decimalsOf, type ValueFormat } from './value-format';

export type MoneyKind = 'amount' | 'price';

/** What stands where a value should be: it flows through everything that depends on it. */
export interface ErrorValue {
  type: 'error';
  /** A sentence for people, with the place in the record: "Line 4, Vent motor: no unit price". */
  message: string;
  /** Path of the field that is the cause, where one field is. */
  path?: string;
  /** The figure in which the error arose. */
  figure?: string;
}

/** An absent value, knowing what is absent and where. Never a zero. */
export interface BlankValue {
  type: 'blank';
  /** "no unit price", "the deal has no order number" */
  cause: string;
  /** What is missing, where that is a value with a name: "unit price". */
  lacks?: string;
  /** "Line 4, Vent motor"; absent for the record itself. */
  place?: string;
  path?: string;
}

/** A list: of records, or of values of one kind. */
export interface ListValue {
  type: 'list';
  items: readonly Value[];
  /** What the list would hold, known even when it is empty: a sum of no amounts is an amount of zero. */
  holds?: MoneyKind;
  /** For a list of rows: the list whose figures they have, and their record type, known even when it is empty. */
  of?: { list: string; recordType?: string };
  /** For a list of rows: the names that hold amounts, so that their sum over no rows is an amount of zero. */
  holdsMoney?: readonly string[];
  /** Path for digests. */
  path?: string;
}

/** A moment, shown in the company's time zone (IANA name). */
export interface DateTimeValue {
  type: 'datetime';
  /** Milliseconds from 1970-01-01T00:00Z. */
  at: number;
  zone: string;
}

export type NumberValue = { type: 'number'; value: Decimal };
export type MoneyValue = { type: 'money'; value: Decimal; currency: string; kind: MoneyKind };
export type PercentValue = { type: 'percent'; value: Decimal };

/** Values that hold a decimal. */
export type AmountValue = NumberValue | PercentValue | MoneyValue;

export type Value =
  | NumberValue
  | MoneyValue
  | PercentValue
  | { type: 'text'; value: string }
  | { type: 'boolean'; value: boolean }
  /** A calendar day, counted from 1970-01-01. */
  | { type: 'date'; day: number }
  | DateTimeValue
  | { type: 'record'; row: Row }
  /** Formatted text: HTML as the record holds it. */
  | { type: 'rich'; html: string }
  | { type: 'image'; picture: PictureField; path: string }
  | ListValue
  | BlankValue
  | ErrorValue;

export const number = (value: Decimal | number): NumberValue => ({
  type: 'number',
  value: typeof value === 'number' ? Decimal.of(value) : value,
});
export const text = (value: string): Value => ({ type: 'text', value });
export const boolean = (value: boolean): Value => ({ type: 'boolean', value });
export const percent = (value: Decimal): PercentValue => ({ type: 'percent', value });
export const money = (value: Decimal, currency: string, kind: MoneyKind): MoneyValue => ({
  type: 'money',
  value,
  currency,
  kind,
});
export const error = (message: string, origin: { path?: string; figure?: string } = {}): ErrorValue => ({
  type: 'error',
  message,
  ...origin,
});

/** The text that a value is; an empty one where it is something else. */
export const textIn = (value: Value | undefined): string => (value?.type === 'text' ? value.value : '');

/** The rows of a list of records; none for anything else. */
export function rowsIn(value: Value): Row[] {
  return value.type === 'list' ? value.items.flatMap((item) => (item.type === 'record' ? [item.row] : [])) : [];
}

/** The error that a blank becomes where a value is needed: "Line 4, Vent motor: no unit price". */
export function blankError(blank: BlankValue): ErrorValue {
  return error(blank.place ? `${blank.place}: ${blank.cause}` : sentence(blank.cause), { path: blank.path });
}

/** Whether a value holds a decimal: a number, a percentage or money. */
export function isAmount(value: Value): value is AmountValue {
  return value.type === 'number' || value.type === 'percent' || value.type === 'money';
}

/** Whether a value is the plain number zero, which stands for a zero of any currency. */
export function isPlainZero(value: Value): boolean {
  return value.type === 'number' && value.value.isZero();
}

/** Capitalised first letter. */
export function sentence(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}

const TYPE_WORDS: Readonly<Record<Value['type'], string>> = {
  number: 'a number', money: 'an amount of money', percent: 'a percentage', text: 'a text', boolean: 'yes or no',
  date: 'a date', datetime: 'a date and time', record: 'a record', list: 'a list', blank: 'blank', error: 'an error',
  rich: 'a formatted text', image: 'a picture',
}; // prettier-ignore

/** The type of a value in words, with its article. */
export function typeWords(value: Value): string {
  return TYPE_WORDS[value.type];
}

/** One value in canonical text, the same wherever and whenever it is read: for digests, never for people. */
export function canonical(value: Value): string {
  switch (value.type) {
    case 'number':
    case 'percent':
      return value.value.toFixed();
    case 'money':
      return `${value.value.toFixed()} ${value.currency}`;
    case 'text':
      return value.value;
    case 'boolean':
      return String(value.value);
    case 'date':
      return isoOf(value.day);
    case 'datetime':
      return new Date(value.at).toISOString();
    case 'record':
      return value.row.id;
    case 'rich':
      return value.html;
    case 'image':
      return value.picture.sha256 ?? value.picture.link;
    case 'list':
      return JSON.stringify(value.items.map(canonical));
    case 'blank':
      return '';
    case 'error':
      return `error: ${value.message}`;
  }
}

/** The error of a sum without a currency to be in. */
export const NO_CURRENCY = 'The document has no currency.';

/** A value in the words and digits of a locale. Blanks are empty; errors print their sentence. */
export function formatValue(value: Value, locale: string, format: ValueFormat = 'full'): string {
  switch (value.type) {
    case 'number':
      return formatDecimal(value.value, locale, decimalsOf(format) ?? 0, decimalsOf(format) ?? 12);
    case 'percent':
      return formatPercent(value.value, locale, decimalsOf(format));
    case 'money':
      return formatSum(value, locale, format);
    case 'text':
      return value.value;
    case 'boolean':
      return format === 'mark' ? (value.value ? '✓' : '–') : phrase(value.value ? 'yes' : 'no', locale);
    case 'date': {
      const skeleton = DATE_SKELETONS[format];
      return skeleton
        ? formatDayBy(value.day, locale, skeleton)
        : formatDay(value.day, locale, format === 'short-date' ? 'short' : 'long');
    }
    case 'datetime':
      return formatMoment(value, locale);
    case 'record':
      return value.row.title;
    case 'rich':
      return plainText(value.html);
    case 'image':
      return '';
    case 'list': {
      const items = value.items.map((item) => formatValue(item, locale, format));
      if (format === 'lines') return items.join('\n');
      return new Intl.ListFormat(locale, { type: format === 'or' ? 'disjunction' : 'conjunction' }).format(items);
    }
    case 'blank':
      return '';
    case 'error':
      return value.message;
  }
}

function formatSum({ value, currency }: MoneyValue, locale: string, format: ValueFormat): string {
  if (format === 'plain') return formatAmount(value, currency, locale);
  if (format === 'code-first') return `${currency}\u00a0${formatAmount(value, currency, locale)}`;
  return format === 'symbol' ? formatWithSymbol(value, currency, locale) : formatMoney(value, currency, locale);
}
