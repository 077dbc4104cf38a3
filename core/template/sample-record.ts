import { nearestName } from '../formula/nearest';
import { Decimal } from '../money/decimal';
import { INTERFACE_LOCALE } from '../words/interface';
import { dayOf } from '../formula/date';
import { partField } from '../record/layout';
import { relationsOf, type PathTree } from '../record/paths';
import { calledByType, fieldOf, recordTypeOf, type FieldSchema, type RecordSchema } from '../record/schema';
import { isRecord, isRecordList, type FieldValue, type RecordSnapshot } from '../record/snapshot';

/**
 * A made-up record as people write it: the names of its fields with their values. Decimals are numbers or decimal texts, a percent
 * is written in percent (`20`), dates are ISO 8601, a related record is an object of its own fields or just its name.
 */
export type Sample = Readonly<Record<string, unknown>>;

/** What a made-up record is known by. No source has a record of this id. */
export const SAMPLE_ID = '~sample';

const MOST_TOLD = 8;

/** A made-up record in the form that records are read in, or what is wrong with it, in sentences. */
export function sampleRecord(
  sample: Sample,
  schema: RecordSchema,
  type: string,
): { record: RecordSnapshot; faults: string[] } {
  const reader = new SampleReader(schema);
  const record = reader.record(sample, type, { place: '', id: SAMPLE_ID, currency: null });
  return { record, faults: reader.faults.slice(0, MOST_TOLD) };
}

/** What a record would be as a made-up one: what it has under some paths, pictures left out. */
export function sampleOf(record: RecordSnapshot, { fields, related }: PathTree, schema: RecordSchema): Sample {
  const currency = ownCurrency(record.fields.currency);
  const plain = [...fields].map((name) => [name, written(record.fields[name] ?? null, currency)]);
  const inner = [...related].map(([name, tree]) => {
    const value = record.fields[name] ?? null;
    if (isRecordList(value)) return [name, value.map((each) => sampleOf(each, tree, schema))];
    return [name, isRecord(value) ? sampleOf(value, tree, schema) : undefined];
  });
  return Object.fromEntries([...plain, ...inner].filter(([, value]) => value !== undefined)) as Sample;
}

/** A made-up record with nothing in it yet: every field that is read, to be filled in. */
export function emptySample({ fields, related }: PathTree, schema: RecordSchema, type: string): Sample {
  const plain = [...fields].flatMap((name) => (fieldOf(schema, type, name)?.type === 'image' ? [] : [[name, '']]));
  const inner = [...related].flatMap(([name, tree]) => {
    const field = fieldOf(schema, type, name);
    if (!field?.target) return [];
    const one = emptySample(tree, schema, field.target);
    return [[name, field.type === 'records' ? [one] : one]];
  });
  return Object.fromEntries([...plain, ...inner]) as Sample;
}

/** The JSON Schema (draft 2020-12) of what a template reads of a record, for whoever writes a sample or brings records. */
export function sampleSchema(tree: PathTree, schema: RecordSchema, type: string): Record<string, unknown> {
  return { $schema: 'https://json-schema.org/draft/2020-12/schema', ...objectSchema(tree, schema, type) };
}

function objectSchema({ fields, related }: PathTree, schema: RecordSchema, type: string): Record<string, unknown> {
  const plain = [...fields].flatMap((name) => {
    const field = fieldOf(schema, type, name);
    return field && field.type !== 'image' ? [[name, { title: field.label, ...valueSchema(field) }]] : [];
  });
  const inner = [...related].flatMap(([name, tree]) => {
    const field = fieldOf(schema, type, name);
    if (!field?.target) return [];
    const one = objectSchema(tree, schema, field.target);
    return [[name, { title: field.label, ...(field.type === 'records' ? { type: 'array', items: one } : one) }]];
  });
  return {
    title: recordTypeOf(schema, type)?.label ?? type,
    type: 'object',
    properties: Object.fromEntries([...plain, ...inner]),
  };
}

const DECIMAL = { type: ['number', 'string'], description: 'A number, or one as text: 1234.5.' };
function valueSchema({ type, allowed }: FieldSchema): Record<string, unknown> {
  const choices = allowed && { enum: allowed.map(({ value }) => value) };
  switch (type) {
    case 'number':
      return DECIMAL;
    case 'percent':
      return { ...DECIMAL, description: 'In percent: 20 is 20 %.' };
    case 'money':
      return { ...DECIMAL, description: 'In the record’s currency, or with another one: 12.50 USD.' };
    case 'boolean':
      return { type: 'boolean' };
    case 'date':
      return { type: 'string', format: 'date' };
    case 'datetime':
      return { type: 'string', format: 'date-time' };
    case 'choices':
      return { type: 'array', items: { type: 'string', ...choices } };
    case 'rich':
      return { type: 'string', description: 'HTML.' };
    default:
      return { type: 'string', ...choices };
  }
}

/** A value as it is written in a sample; undefined for what is left out. */
function written(value: FieldValue, currency: string | null): unknown {
  if (value === null || typeof value === 'string' || typeof value === 'boolean') return value ?? undefined;
  if ('number' in value) return plainNumber(value.number);
  if ('percent' in value) return plainNumber(Decimal.of(value.percent).times(HUNDRED).toString());
  if ('amount' in value)
    return value.currency === currency ? plainNumber(value.amount) : `${value.amount} ${value.currency ?? ''}`.trim();
  if ('date' in value) return value.date;
  if ('datetime' in value) return value.datetime;
  if ('choices' in value) return value.choices;
  if ('rich' in value) return value.rich;
  return undefined;
}

const HUNDRED = Decimal.of(100);
const HUNDREDTH = Decimal.of('0.01');
/** A number where JSON keeps it as it is, else its text. */
const plainNumber = (text: string) => (String(Number(text)) === text ? Number(text) : text);
const ownCurrency = (value: FieldValue | undefined) => (typeof value === 'string' ? value : null);

/** Where a value of a sample stands, and the currency of amounts that name none. */
interface Standing {
  place: string;
  id: string;
  currency: string | null;
}

/** Reads a sample by the schema, and notes everything that is wrong with it. */
class SampleReader {
  readonly faults: string[] = [];

  constructor(readonly schema: RecordSchema) {}

  record(sample: Sample, type: string, { place, id, currency }: Standing): RecordSnapshot {
    const known = Object.values(recordTypeOf(this.schema, type)?.fields ?? {});
    const called = calledByType(this.schema, type);
    for (const name of Object.keys(sample)) {
      if (fieldOf(this.schema, type, name)) continue;
      const meant = nearestName(
        name,
        known.map((field) => field.name),
      );
      this.faults.push(`${place}“${name}” is no field of a ${called}.${meant ? ` Is it “${meant}”?` : ''}`);
    }
    const money = typeof sample.currency === 'string' ? sample.currency : currency;
    const relations = new Set(relationsOf(this.schema, type).map(({ name }) => name));
    const fields = known.flatMap((field): [string, FieldValue][] => {
      if (field.target && !relations.has(field.name)) return [];
      const value = Object.hasOwn(sample, field.name) ? sample[field.name] : null;
      return [[field.name, this.#value(value, field, { place: `${place}${field.name}`, id, currency: money })]];
    });
    return { type, id, fields: Object.fromEntries(fields) };
  }

  #value(value: unknown, field: FieldSchema, standing: Standing): FieldValue {
    if (field.type === 'records') return this.#list(value ?? [], field.target!, standing);
    if (value === null || value === undefined || value === '') return null;
    if (field.type === 'record') return this.#related(value, field.target!, standing);
    const read = READERS[field.type]?.(value, standing.currency, field);
    if (read !== undefined) return read;
    return this.#refuse(standing.place, value, field);
  }

  #list(value: unknown, type: string, { place, id, currency }: Standing): readonly RecordSnapshot[] {
    const items = Array.isArray(value) ? (value as unknown[]) : [value];
    return items.flatMap((item, at) => {
      const standing = { place: `${place} ${at + 1}, `, id: `${id}.${at + 1}`, currency };
      if (isObject(item)) return [this.record(item, type, standing)];
      this.faults.push(`${standing.place}is no record: write it as an object of its fields.`);
      return [];
    });
  }

  /** A related record by its fields, or by its name alone. */
  #related(value: unknown, type: string, { place, id, currency }: Standing): FieldValue {
    const standing = { place: `${place}.`, id: `${id}.${place}`, currency };
    if (isObject(value)) return this.record(value, type, standing);
    const name = partField(this.schema, type, 'name');
    if (typeof value === 'string' && name !== undefined) return this.record({ [name]: value }, type, standing);
    this.faults.push(`${place}: write the ${calledByType(this.schema, type)} as an object of its fields.`);
    return null;
  }

  #refuse(place: string, value: unknown, field: FieldSchema): null {
    const shown = typeof value === 'string' ? `“${value.slice(0, 40)}”` : JSON.stringify(value).slice(0, 40);
    this.faults.push(`${place}: ${shown} ${wanted(field)}`);
    return null;
  }
}

/** What a value that is not right should have been. */
function wanted({ type, allowed }: FieldSchema): string {
  if (allowed && (type === 'choice' || type === 'choices'))
    return `is not allowed. Write ${new Intl.ListFormat(INTERFACE_LOCALE, { type: 'disjunction' }).format(allowed.map((each) => each.value))}.`;
  switch (type) {
    case 'number':
      return 'is no number. Write it like 1234.5.';
    case 'percent':
      return 'is no percentage. Write 20 for 20 %.';
    case 'money':
      return 'is no amount. Write it like 1234.50, or 1234.50 USD.';
    case 'boolean':
      return 'is neither yes nor no. Write true or false.';
    case 'date':
      return 'is no day. Write it like 2026-11-23.';
    case 'datetime':
      return 'is no moment. Write it like 2026-11-23T09:30:00Z.';
    case 'image':
      return 'cannot be read: a sample has no pictures. Leave it out.';
    default:
      return 'is no text.';
  }
}

type Reader = (value: unknown, currency: string | null, field: FieldSchema) => FieldValue | undefined;
const TRUE = /^(true|yes|1)$/i;
const FALSE = /^(false|no|0)$/i;

const READERS: Partial<Record<FieldSchema['type'], Reader>> = {
  text: (value) => textOf(value),
  rich: (value) => (typeof value === 'string' ? { rich: value } : undefined),
  number: (value) => {
    const number = decimalOf(value);
    return number && { number };
  },
  percent: (value) => {
    const number = decimalOf(typeof value === 'string' ? value.replace(/ ?%$/, '') : value);
    return number && { percent: Decimal.of(number).times(HUNDREDTH).toString() };
  },
  money: (value, currency) => {
    const [, text, named] = typeof value === 'string' ? (/^(\S+?) ?([A-Z]{3})?$/.exec(value) ?? []) : [];
    const amount = decimalOf(text ?? value);
    return amount && { amount, currency: named ?? currency };
  },
  boolean: (value) => {
    if (typeof value === 'boolean') return value;
    const text = String(value);
    return TRUE.test(text) ? true : FALSE.test(text) ? false : undefined;
  },
  date: (value) => (isDay(value) ? { date: value } : undefined),
  datetime: (value) =>
    typeof value === 'string' && isDay(value.slice(0, 10)) && !Number.isNaN(Date.parse(value))
      ? { datetime: value }
      : undefined,
  choice: (value, _, field) => {
    const text = textOf(value);
    return text !== undefined && isAllowed(text, field) ? text : undefined;
  },
  choices: (value, _, field) => {
    const all = (Array.isArray(value) ? (value as unknown[]) : String(value).split(/\s*[;,]\s*/)).map(textOf);
    return all.every((each) => each !== undefined && isAllowed(each, field)) ? { choices: all as string[] } : undefined;
  },
};

const isAllowed = (text: string, { allowed }: FieldSchema) => !allowed || allowed.some(({ value }) => value === text);
const isDay = (value: unknown): value is string => typeof value === 'string' && dayOf(value) !== undefined;
const textOf = (value: unknown) => (typeof value === 'string' || typeof value === 'number' ? String(value) : undefined);

/** A decimal as text; undefined for what is none. */
function decimalOf(value: unknown): string | undefined {
  if (typeof value !== 'number' && typeof value !== 'string') return undefined;
  return Decimal.read(String(value).trim())?.toString();
}

/** Whether something is written as a record of its own. */
export const isObject = (value: unknown): value is Sample =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
