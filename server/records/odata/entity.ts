import { Decimal } from '../../../core/money/decimal';
import { own } from '../../../core/record/own';
import type { PathTree } from '../../../core/record/paths';
import { fieldOf, type FieldSchema } from '../../../core/record/schema';
import type { FieldValue, RecordSnapshot } from '../../../core/record/snapshot';
import { SourceError } from '../source';
import { keyNamed, storedAs, type ODataSchema } from './csdl';

/** An entity as the service's JSON has it. */
export type Entity = Record<string, unknown>;

export const isEntity = (value: unknown): value is Entity =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The record that an entity is, with the fields of a path tree. @throws SourceError for a value that no such field holds */
export function snapshot(schema: ODataSchema, type: string, entity: Entity, paths: PathTree): RecordSnapshot {
  const fields: Record<string, FieldValue> = {};
  for (const name of paths.fields) {
    const field = fieldOf(schema.records, type, name);
    if (field?.type === 'image') fields[name] = pictureField(entity, name);
    else if (field && Object.hasOwn(entity, name)) fields[name] = fieldValue(schema, type, field, entity);
  }
  for (const [name, nested] of paths.related) {
    const target = fieldOf(schema.records, type, name)?.target;
    const value = own(entity, name);
    if (!target) continue;
    if (Array.isArray(value)) fields[name] = value.map((item) => snapshot(schema, target, item as Entity, nested));
    else fields[name] = isEntity(value) ? snapshot(schema, target, value, nested) : null;
  }
  return { type, id: idOf(schema, type, entity), version: entity['@odata.etag'] as string | undefined, fields };
}

/** The id of an entity, of a deleted one too (OData JSON format 4.01, 16.2). */
export function idOf(schema: ODataSchema, type: string, entity: Entity): string {
  const id = entity[keyNamed(schema, type).name];
  if (id !== undefined) return String(id);
  const [, inApostrophes, plain] = /\((?:'((?:[^']|'')*)'|([^']*))\)$/.exec(String(entity['@id'])) ?? [];
  return decodeURIComponent(inApostrophes?.replaceAll("''", "'") ?? plain ?? '');
}

/** Where a picture is read, by OData's links for streams; null where the record has none. */
function pictureField(entity: Entity, name: string): FieldValue {
  const said = (term: string) => entity[`${name}@odata.${term}`] ?? entity[`${name}@${term}`];
  const link = said('mediaReadLink');
  if (typeof link !== 'string') return null;
  const version = said('mediaEtag');
  return { image: { link, ...(typeof version === 'string' && { version }) } };
}

function fieldValue(schema: ODataSchema, type: string, field: FieldSchema, entity: Entity): FieldValue {
  const raw = entity[field.name];
  if (raw === null || raw === undefined) return null;
  const { currencyPath, percentPoints } = storedAs(schema, type, field.name);
  switch (field.type) {
    case 'money':
      return {
        amount: decimalText(raw),
        currency: (currencyPath ? (entity[currencyPath] as string | null) : null) ?? null,
      };
    case 'percent':
      return {
        percent: Decimal.of(decimalText(raw))
          .shifted(percentPoints ? -2 : 0)
          .toFixed(),
      };
    case 'number':
      return { number: decimalText(raw) };
    case 'date':
      return { date: String(raw) };
    case 'datetime':
      return { datetime: String(raw) };
    case 'choices':
      return { choices: (raw as unknown[]).map(String) };
    case 'rich':
      return { rich: String(raw) };
    case 'boolean':
      return raw === true;
    default:
      return String(raw);
  }
}

/** Decimals travel as text; a service that sends JSON numbers is read by its shortest decimal form. */
function decimalText(raw: unknown): string {
  const text = String(raw);
  if (!/^-?\d+(\.\d+)?(e[+-]?\d+)?$/i.test(text))
    throw new SourceError('refused', `The CRM sent “${text}” where a number was expected.`);
  const value = Decimal.read(text);
  if (!value) throw new SourceError('refused', 'The CRM sent a number with more digits than Lumbix computes with.');
  return value.toFixed();
}

/** A field's value as the service keeps it. @throws SourceError for a relation */
export function stored(schema: ODataSchema, type: string, name: string, value: FieldValue): unknown {
  if (value === null || typeof value !== 'object') return value;
  if ('amount' in value) return value.amount;
  if ('percent' in value)
    return Decimal.of(value.percent)
      .shifted(storedAs(schema, type, name).percentPoints ? 2 : 0)
      .toFixed();
  // Whole numbers as JSON has them, as long as it holds them exactly; all others as text.
  if ('number' in value) return Number.isSafeInteger(Number(value.number)) ? Number(value.number) : value.number;
  if ('date' in value) return value.date;
  if ('datetime' in value) return value.datetime;
  if ('choices' in value) return value.choices;
  if ('rich' in value) return value.rich;
  throw new SourceError('refused', `“${name}” is a relation and cannot be set here.`);
}
