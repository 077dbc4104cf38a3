import { dayOf } from '../formula/date';
import { Decimal } from '../money/decimal';
import type { FieldSchema } from '../record/schema';
import type { FieldValue } from '../record/snapshot';
import { cleanHtml } from '../rich/rich-text';

/** A field's value from what a person typed: decimals with a point, 10 for ten percent; or why it is none, in a sentence. */
export function typedFieldValue(field: FieldSchema, typed: string): { value: FieldValue } | { fault: string } {
  const fault = (what: string) => ({ fault: `${field.label} ${what}.` });
  if (typed === '' && field.type !== 'choices') return field.nullable ? { value: null } : fault('cannot be empty');
  switch (field.type) {
    case 'number':
    case 'money':
    case 'percent': {
      const number = field.type === 'percent' ? typed.replace(/\s*%$/, '') : typed;
      if (!/^-?\d+(\.\d+)?$/.test(number) || !Decimal.read(number))
        return fault('is a number with a point before its decimals, such as 1250.50');
      if (field.type === 'number') return { value: { number } };
      if (field.type === 'money') return { value: { amount: number, currency: null } };
      return { value: { percent: Decimal.of(number).shifted(-2).toFixed() } };
    }
    case 'date':
      return dayOf(typed) === undefined ? fault('is a date such as 2026-11-23') : { value: { date: typed } };
    case 'boolean':
      return { value: typed === 'true' };
    case 'choices': {
      const choices = typed.split(',').flatMap((each) => each.trim() || []);
      return choices.every((each) => mayBe(field, each))
        ? { value: { choices } }
        : fault(`holds only ${allowedWords(field)}`);
    }
    case 'choice':
      return mayBe(field, typed) ? { value: typed } : fault(`is one of ${allowedWords(field)}`);
    case 'rich':
      return { value: { rich: cleanHtml(typed) } };
    default:
      return { value: typed };
  }
}

/** A field's value as it is typed, the other way round: decimals with a point, 10 for ten percent. */
export function writtenValue(value: FieldValue | undefined): string {
  if (value === null || value === undefined) return '';
  if (typeof value !== 'object') return String(value);
  if ('number' in value) return value.number;
  if ('percent' in value) return Decimal.of(value.percent).shifted(2).toFixed();
  if ('amount' in value) return value.amount;
  if ('date' in value) return value.date;
  if ('rich' in value) return value.rich;
  return 'choices' in value ? value.choices.join(', ') : '';
}

const mayBe = ({ allowed }: FieldSchema, typed: string): boolean =>
  allowed === undefined || allowed.some(({ value }) => value === typed);
const allowedWords = ({ allowed = [] }: FieldSchema): string => allowed.map(({ label }) => label).join(', ');
