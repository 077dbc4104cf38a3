import { Decimal } from '#core/money/decimal';
import { formatDecimal, formatMoney, formatPercent } from '#core/money/format';
import { plainText } from '#core/rich/rich-text';
import { isRecord, isRecordList, type FieldValue } from '#core/record/snapshot';
import { dayText, userLocale } from './in-words';

/** A field's value for reading, in the user's locale. Blank is empty. */
export function fieldText(value: FieldValue | undefined): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'string') return value;
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
  return value.choices.join(', ');
}

/** A field's value as it is typed into a field: `10` for ten percent, ISO dates. */
export function fieldInput(value: FieldValue | undefined): string {
  if (value === null || value === undefined || typeof value !== 'object') return String(value ?? '');
  if ('number' in value) return value.number;
  if ('percent' in value) return Decimal.of(value.percent).shifted(2).toFixed();
  if ('amount' in value) return value.amount;
  if ('date' in value) return value.date;
  if ('choices' in value) return value.choices.join(', ');
  return '';
}

/** A fraction as people write a percentage: `0.125` is `12.5`; what is no number stays as it is. */
export function percentPoints(fraction: string): string {
  return /^-?\d+(\.\d+)?$/.test(fraction) ? Decimal.of(fraction).shifted(2).toFixed() : fraction;
}

/** A percentage as people write it as a fraction: `12.5` or `12.5 %` is `0.125`; what is no number stays as it is. */
export function percentFraction(typed: string): string {
  const points = typed.replace(/\s*%$/, '').replaceAll(',', '');
  return /^-?\d+(\.\d+)?$/.test(points) ? Decimal.of(points).shifted(-2).toFixed() : typed;
}
