import { fieldOf, type FieldSchema } from '../core/record/schema';
import type { FieldValue } from '../core/record/snapshot';
import { dayOf } from '../core/formula/date';
import { Decimal } from '../core/money/decimal';
import { cleanHtml, plainText } from '../core/rich/rich-text';
import { recordSchema } from './records/record-schema';
import type { Database } from './db/database';
import { refreshRecord } from './records/record-index';
import { crm } from './records/sources';
import { refuseUnchangedRecord } from './people/access';
import type { Caller } from './people/caller';
import { Problem } from './problem';
import { addToTrail } from './trail';
import type { BodyOf } from '../core/contract/endpoint';
import type { Contract } from '../core/contract/contract';

/**
 * Writes one corrected field back onto its record, if nobody else has changed the record since it was read.
 * @throws Problem for a value the field cannot hold, SourceError
 */
export async function changeField(
  database: Database,
  { type, id, version, field, value }: BodyOf<Contract['PATCH /fields']>,
  caller: Caller,
): Promise<void> {
  refuseUnchangedRecord(caller, type);
  const schema = await recordSchema();
  const declared = fieldOf(schema, type, field);
  if (!declared || declared.readonly)
    throw new Problem(
      422,
      'This field cannot be changed here',
      declared
        ? `Change “${declared.label}” in the CRM.`
        : 'The CRM has no such field there, or none that can be changed.',
    );
  await crm.change({ type, id }, version, { [field]: typedValue(declared, value.trim()) });
  await refreshRecord(database, { type, id });
  const subject = { kind: 'record' as const, id: `${type} ${id}`, name: id };
  const said = declared.type === 'rich' ? plainText(value) : value.trim();
  await addToTrail(database, caller, 'field changed', subject, `Set ${declared.label} of ${id} to “${said}”.`);
}

/** A field's value from what a person typed. */
function typedValue(field: FieldSchema, typed: string): FieldValue {
  if (typed === '') {
    if (!field.nullable) throw wrong(field, 'cannot be empty');
    return field.type === 'choices' ? { choices: [] } : null;
  }
  switch (field.type) {
    case 'number':
      return { number: decimal(field, typed) };
    case 'percent':
      return {
        percent: Decimal.of(decimal(field, typed.replace(/\s*%$/, '')))
          .shifted(-2)
          .toFixed(),
      };
    case 'money':
      return { amount: decimal(field, typed), currency: null };
    case 'date':
      if (dayOf(typed) === undefined) throw wrong(field, 'is a date such as 2026-11-23');
      return { date: typed };
    case 'boolean':
      return typed === 'true';
    case 'choices': {
      const choices = typed.split(',').map((each) => each.trim());
      const chosen = choices.filter(Boolean);
      if (!chosen.every((each) => mayBe(field, each))) throw wrong(field, `holds only ${allowedWords(field)}`);
      return { choices: chosen };
    }
    case 'choice':
      if (!mayBe(field, typed)) throw wrong(field, `is one of ${allowedWords(field)}`);
      return typed;
    case 'rich':
      return { rich: cleanHtml(typed) };
    default:
      return typed;
  }
}

const mayBe = ({ allowed }: FieldSchema, typed: string): boolean =>
  allowed === undefined || allowed.some(({ value }) => value === typed);
const allowedWords = ({ allowed = [] }: FieldSchema): string => allowed.map(({ label }) => label).join(', ');

function decimal(field: FieldSchema, typed: string): string {
  if (!/^-?\d+(\.\d+)?$/.test(typed) || !Decimal.read(typed))
    throw wrong(field, 'is a number with a point before its decimals, such as 1250.50');
  return typed;
}

const wrong = (field: FieldSchema, what: string) =>
  new Problem(422, 'This value does not fit', `${field.label} ${what}.`);
