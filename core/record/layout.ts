import { listOf, oneOf, shape, text, type ShapeOf } from '../shape/shape';
import { own } from './own';
import { fieldOf, recordTypeOf, type FieldSchema, type FieldType, type RecordSchema, type RecordType } from './schema';
import { isRecord, type FieldValue, type RecordSnapshot } from './snapshot';

/** What lists, views and the register need to know of a record, whatever its fields are called. */
export const LISTED_PARTS = ['name', 'number', 'account', 'stage', 'owner', 'amount', 'day'] as const;
/** And what tells who changed a record last, and when: of records that belong to others too. */
export const CHANGE_PARTS = ['changedBy', 'changedAt'] as const;
export const PARTS = [...LISTED_PARTS, ...CHANGE_PARTS] as const;
export type Part = (typeof PARTS)[number];

/** The types of fields that can be each part. */
export const PART_TYPES: Readonly<Record<Part, readonly FieldType[]>> = {
  name: ['text'],
  number: ['text'],
  account: ['record', 'text'],
  stage: ['choice', 'text'],
  owner: ['text', 'choice', 'record'],
  amount: ['money'],
  day: ['date'],
  changedBy: ['text', 'choice', 'record'],
  changedAt: ['datetime'],
};

/** The pictures that a type of records can have in the rail. */
export const RECORD_ICONS = [
  'briefcase',
  'building',
  'person',
  'box',
  'tag',
  'calendar',
  'truck',
  'wrench',
  'folder',
] as const;
export type RecordIcon = (typeof RECORD_ICONS)[number];

/** Fields that stand together on a record's page, under a heading. */
export interface FieldGroup {
  label: string;
  fields: readonly string[];
}

/** How records of a type are shown: which field is which part, which fields stand together, and when a quote is needed. */
export interface RecordLayout {
  /** A folder, where it is absent. */
  icon?: RecordIcon;
  parts: Readonly<Partial<Record<Part, string>>>;
  groups: readonly FieldGroup[];
  /** The fields that are columns where such records are in a list: of their type, or of another record. */
  columns: readonly string[];
  /** The stages at which a record needs a quote. */
  needsQuote: readonly string[];
  /** Further fields that it is found by; of a related record, all its texts. */
  search: readonly string[];
}

const fieldName = () => text(100).min(1).required();
const partName = () => text(100).min(1).optional();
const MOST_FIELDS = 500;

/** The shape of a layout, as it is kept and changed. */
export const recordLayout: ShapeOf<RecordLayout> = shape({
  icon: oneOf(RECORD_ICONS),
  parts: shape({
    name: partName(),
    number: partName(),
    account: partName(),
    stage: partName(),
    owner: partName(),
    amount: partName(),
    day: partName(),
    changedBy: partName(),
    changedAt: partName(),
  }).required(),
  groups: listOf(
    shape({ label: text(60).min(1).required(), fields: listOf(fieldName(), MOST_FIELDS).required() }).required(),
    40,
  ).required(),
  columns: listOf(fieldName(), 20).required(),
  needsQuote: listOf(text(100).min(1).required(), 100).required(),
  search: listOf(fieldName(), 20).required(),
}).required();

/** The layout of a type where nobody said otherwise, from what its fields are. */
export function usualLayout({ label, fields }: Pick<RecordType, 'label' | 'fields'>): RecordLayout {
  const all = Object.values(fields);
  const first = (holds: (field: FieldSchema) => boolean) => all.find(holds)?.name;
  const ofType = (part: Part) => (field: FieldSchema) => PART_TYPES[part].includes(field.type);
  const plain = all.filter((field) => !field.identifies && !field.target);
  const parts = {
    name: first(({ name, type }) => name === 'name' && type === 'text') ?? first(isNamed),
    number: first((field) => field.type === 'text' && field.readonly && !field.identifies),
    account: first(({ type }) => type === 'record'),
    stage: first(({ type, nullable }) => type === 'choice' && !nullable) ?? first(({ type }) => type === 'choice'),
    amount: first(ofType('amount')),
    day: first(ofType('day')),
    changedAt: first(({ type, readonly }) => type === 'datetime' && readonly),
  };
  return {
    parts: Object.fromEntries(Object.entries(parts).filter(([, name]) => name !== undefined)),
    groups: plain.length > 0 ? [{ label, fields: plain.map(({ name }) => name) }] : [],
    columns: plain
      .filter(({ type }) => type === 'number' || type === 'money' || type === 'percent')
      .slice(0, 5)
      .map(({ name }) => name),
    needsQuote: [],
    search: [],
  };
}

const isNamed = ({ type, nullable, readonly, identifies }: FieldSchema) =>
  type === 'text' && !nullable && !readonly && !identifies;

/** A layout as far as a type has its fields; what the source dropped is left out, and a part falls back to the usual one. */
export function fittingLayout(type: Pick<RecordType, 'label' | 'fields'>, layout: RecordLayout): RecordLayout {
  const has = (name: string) => Object.hasOwn(type.fields, name);
  const usual = usualLayout(type);
  const parts = PARTS.flatMap((part): [Part, string][] => {
    const chosen = layout.parts[part];
    if (chosen === undefined) return [];
    const name = has(chosen) && PART_TYPES[part].includes(type.fields[chosen]!.type) ? chosen : usual.parts[part];
    return name === undefined ? [] : [[part, name]];
  });
  return {
    ...(layout.icon && { icon: layout.icon }),
    parts: Object.fromEntries(parts),
    groups: layout.groups
      .map(({ label, fields }) => ({ label, fields: fields.filter(has) }))
      .filter(({ fields }) => fields.length > 0),
    columns: layout.columns.filter(has),
    needsQuote: layout.needsQuote,
    search: layout.search.filter(has),
  };
}

/** The schema with the layouts of its types: those that were kept, and the usual ones. */
export function withLayouts(schema: RecordSchema, kept: Readonly<Record<string, RecordLayout>>): RecordSchema {
  const types = Object.values(schema.types).map((type): [string, RecordType] => {
    return [type.name, { ...type, layout: fittingLayout(type, own(kept, type.name) ?? usualLayout(type)) }];
  });
  return { ...schema, types: Object.fromEntries(types) };
}

/** The layout of a type; the empty one for a type that the schema has not. */
export function layoutOf(schema: RecordSchema, type: string | undefined): RecordLayout {
  const known = recordTypeOf(schema, type);
  return known?.layout ?? usualLayout(known ?? { label: '', fields: {} });
}

/** The field that is a part of records of a type; undefined where none is. */
export const partField = (schema: RecordSchema, type: string | undefined, part: Part): string | undefined =>
  layoutOf(schema, type).parts[part];

/** What a record is called; undefined where it has no name. */
export function nameOf(record: RecordSnapshot, schema: RecordSchema): string | undefined {
  const field = partField(schema, record.type, 'name');
  return (field !== undefined && textOf(record.fields[field], schema)) || undefined;
}

/** What a record is called, by its name or else by its id. */
export const calledRecord = (record: RecordSnapshot, schema: RecordSchema): string =>
  nameOf(record, schema) ?? record.id;

/** A part of a record as a text: of a related record its name. Empty where there is none. */
export function partText(record: RecordSnapshot, part: Part, schema: RecordSchema): string {
  const field = partField(schema, record.type, part);
  return field === undefined ? '' : textOf(record.fields[field], schema);
}

function textOf(value: FieldValue | undefined, schema: RecordSchema): string {
  if (typeof value === 'string') return value;
  return value && isRecord(value) ? (nameOf(value, schema) ?? '') : '';
}

/** The fields that are columns of a type's own list, besides those that are parts. */
export function listedFields(schema: RecordSchema, type: string): FieldSchema[] {
  const { parts, columns } = layoutOf(schema, type);
  const shown = new Set(Object.values(parts));
  return columns.flatMap((name) => (shown.has(name) ? [] : (fieldOf(schema, type, name) ?? [])));
}

/** The types of records that documents are made from: those that files can be put on. */
export const documentTypes = (schema: RecordSchema): RecordType[] =>
  Object.values(schema.types).filter(({ files }) => files !== undefined);
