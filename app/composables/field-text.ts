import { dayOf } from '#core/formula/date';
import { Decimal } from '#core/money/decimal';
import { formatDecimal, formatMoney, formatPercent } from '#core/money/format';
import { numberTyped, readNumber } from '#core/money/read-number';
import type { FieldSchema } from '#core/record/schema';
import { plainText } from '#core/rich/rich-text';
import { isRecord, isRecordList, type FieldValue } from '#core/record/snapshot';
import { writtenValue } from '#core/template/typed-value';
import { dayText, userLocale } from './in-words';

export { writtenValue };

/** A field's value for reading, in the user's locale; a value that is chosen by what it is called. Blank is empty. */
export function fieldText(value: FieldValue | undefined, { allowed }: Pick<FieldSchema, 'allowed'> = {}): string {
  const called = (chosen: string) => allowed?.find((each) => each.value === chosen)?.label ?? chosen;
  if (value === null || value === undefined) return '';
  if (typeof value === 'string') return called(value);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (isRecordList(value)) return String(value.length);
  if (isRecord(value)) return value.id;
  if ('number' in value) return formatDecimal(Decimal.of(value.number), userLocale(), 0, 12);
  if ('percent' in value) return formatPercent(Decimal.of(value.percent), userLocale());
  if ('amount' in value)
    return value.currency
      ? formatMoney(Decimal.of(value.amount), value.currency, userLocale())
      : `${value.amount} (no currency)`;
  if ('date' in value) return dayText(value.date);
  if ('datetime' in value) return dayText(value.datetime.slice(0, 10));
  if ('rich' in value) return plainText(value.rich);
  if ('image' in value) return value.image.refused ?? 'a picture';
  return value.choices.map(called).join(', ');
}

export const isNumberField = ({ type }: FieldSchema): boolean =>
  type === 'number' || type === 'money' || type === 'percent';

/** A field's value as it is typed: as it is written, with numbers in the user's notation. */
export const typedText = (field: FieldSchema, value: FieldValue | undefined): string =>
  isNumberField(field) ? numberTyped(writtenValue(value), userLocale()) : writtenValue(value);

/** What was typed into a field: as the server takes it, or the numbers that it may mean, or why it is no value of the field. */
export interface Typed {
  value?: string;
  either?: string[];
  problem?: string;
}

/** Reads what a person typed into a field, by its type. */
export function typedValue(field: FieldSchema, typed: string): Typed {
  const text = typed.trim();
  if (text === '') return field.nullable ? { value: '' } : { problem: `${field.label} cannot be empty.` };
  if (field.type === 'date' && dayOf(text) === undefined) return { problem: `${field.label} is a date.` };
  if (!isNumberField(field)) return { value: text };
  const read = readNumber(text.replace(/\s*%$/, '').replace(/^[A-Z]{3}\s|\s[A-Z]{3}$/, ''), userLocale());
  if (read.is === 'number') return { value: read.number };
  if (read.is === 'either') return { either: read.numbers };
  return { problem: `${field.label} is a number, such as ${numberText('1250.5')}.` };
}

/** A decimal in the user's notation. */
export const numberText = (number: string): string => formatDecimal(Decimal.of(number), userLocale(), 0, 12);

/** A fraction as people write a percentage: `0.125` is `12.5`; what is no number stays as it is. */
export function percentPoints(fraction: string): string {
  return /^-?\d+(\.\d+)?$/.test(fraction) ? Decimal.of(fraction).shifted(2).toFixed() : fraction;
}

/** A percentage as people write it as a fraction: `12.5` or `12.5 %` is `0.125`; what is no number stays as it is. */
export function percentFraction(typed: string): string {
  const points = typed.replace(/\s*%$/, '').replaceAll(',', '');
  return /^-?\d+(\.\d+)?$/.test(points) ? Decimal.of(points).shifted(-2).toFixed() : typed;
}
