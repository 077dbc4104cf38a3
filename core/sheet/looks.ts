import { Decimal } from '../money/decimal';
import { formatValue, money, number, percent, rowsIn, text, type Value } from '../formula/value';
import { formatsOf, type ValueFormat } from '../formula/value-format';
import type { Type } from '../formula/type';
import type { Checker } from './check';
import type { Sheet } from './sheet';

/** A look of a value by what it would print. */
export interface LookExample {
  /** Absent for the usual look. */
  format?: ValueFormat;
  example: string;
}

/** The looks that what a formula gives may have: as the record has it, or made up where the record has nothing of the kind. */
export function lookExamples(
  source: string,
  checker: Checker,
  sheet: Sheet,
  locale: string,
  list?: string,
): LookExample[] {
  const { type } = checker.formula(source, checker.itemOf(list));
  const row = list === undefined ? undefined : firstRow(list, sheet);
  const found = list !== undefined && row === undefined ? undefined : sheet.evaluate('look', source, row).value;
  const value = found === undefined || found.type === 'blank' || found.type === 'error' ? madeUp(type, sheet) : found;
  if (value === undefined) return [];
  return formatsOf(type).map((format) => ({ ...(format && { format }), example: formatValue(value, locale, format) }));
}

function firstRow(list: string, sheet: Sheet) {
  const { value } = sheet.evaluate('look list', list);
  return value.type === 'list' ? rowsIn(value)[0] : undefined;
}

/** A value of a type, for an example; undefined for what has one look only. */
function madeUp(type: Type, { currency, input }: Sheet): Value | undefined {
  switch (type.is) {
    case 'money':
      return money(Decimal.of('1234.5'), currency ?? 'EUR', 'amount');
    case 'number':
      return number(Decimal.of('1234.567'));
    case 'percent':
      return percent(Decimal.of('0.125'));
    case 'date':
      return { type: 'date', day: input.today ?? 0 };
    case 'boolean':
      return { type: 'boolean', value: true };
    case 'list':
      return { type: 'list', items: [text('one'), text('two'), text('three')] };
    default:
      return undefined;
  }
}
