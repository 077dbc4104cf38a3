import { dayOf } from '../formula/date';
import { formatValue, type Value } from '../formula/value';
import { Decimal } from '../money/decimal';
import { fieldAt } from '../record/field-at';
import type { FieldSchema, RecordSchema } from '../record/schema';
import type { RecordSnapshot } from '../record/snapshot';
import { INTERFACE_LOCALE } from '../words/interface';

/** A used value as people write it, from the canonical text that it is kept by: `44.5 EUR` is “€44.50”. A blank is empty. */
export function usedWords(path: string, text: string, snapshot: RecordSnapshot, schema: RecordSchema): string {
  const field = fieldAt(path, snapshot, schema)?.field;
  if (!field || text === '') return text;
  const value = valueOf(field, text);
  return value ? formatValue(value, INTERFACE_LOCALE, value.type === 'money' ? 'symbol' : 'full') : text;
}

/** The value of a field by its canonical text; undefined for types that are written as they are kept. */
function valueOf({ type, allowed = [] }: FieldSchema, text: string): Value | undefined {
  switch (type) {
    case 'money': {
      const [, amount, currency] = /^(-?\d+(?:\.\d+)?) ([A-Z]{3})$/.exec(text) ?? [];
      return amount && currency ? { type: 'money', value: Decimal.of(amount), currency, kind: 'price' } : undefined;
    }
    case 'number':
    case 'percent':
      return /^-?\d+(\.\d+)?$/.test(text) ? { type, value: Decimal.of(text) } : undefined;
    case 'date': {
      const day = dayOf(text);
      return day === undefined ? undefined : { type, day };
    }
    case 'boolean':
      return { type, value: text === 'true' };
    case 'choice':
      return { type: 'text', value: allowed.find(({ value }) => value === text)?.label ?? text };
    case 'rich':
      return { type, html: text };
    default:
      return undefined;
  }
}
