import type { RecordLayout } from './layout';
import { own } from './own';

/** What a field holds, as the CRM's metadata declares it. */
export type FieldType =
  | 'text' | 'number' | 'percent' | 'money' | 'boolean' | 'date' | 'datetime'
  | 'choice' | 'choices' | 'record' | 'records'
  /** Formatted text, and a picture. */
  | 'rich' | 'image'; // prettier-ignore

/** One field of a record type. `target` names the related type of a `record` or `records` field. */
export interface FieldSchema {
  name: string;
  label: string;
  type: FieldType;
  nullable: boolean;
  /** The CRM refuses to have it changed from outside. */
  readonly: boolean;
  target?: string;
  /** Whether it is what names the record in its source. */
  identifies?: boolean;
  /** The values a choice may take; absent where the CRM leaves it open. */
  allowed?: readonly { value: string; label: string }[];
}

/** A kind of record of the CRM. */
export interface RecordType {
  name: string;
  label: string;
  /** What many of them are called, where the source says so. */
  plural?: string;
  fields: Readonly<Record<string, FieldSchema>>;
  /** The relation that holds a record's files; only types that have one are what documents are made from. */
  files?: string;
  /** Its files can be given another content, and keep the earlier one as a revision. */
  revisesFiles?: boolean;
  /** New ones may be written from outside. */
  takesNew?: boolean;
  /** How they are shown; the usual layout where it is absent. */
  layout?: RecordLayout;
}

/** Everything the CRM says about its record types. */
export interface RecordSchema {
  types: Readonly<Record<string, RecordType>>;
}

/** A record type by its name; undefined where there is none. */
export function recordTypeOf(schema: RecordSchema, type: string | undefined): RecordType | undefined {
  return type === undefined ? undefined : own(schema.types, type);
}

/** A field by its record type and name; undefined where there is none. */
export function fieldOf(schema: RecordSchema, type: string | undefined, name: string): FieldSchema | undefined {
  const known = recordTypeOf(schema, type);
  return known && own(known.fields, name);
}

/** The label people know a field by; its name where the schema has none. */
export function fieldLabel(schema: RecordSchema, type: string, field: string): string {
  return fieldOf(schema, type, field)?.label ?? field;
}

/** What records of a type are called in a sentence: "deal", "line item"; `otherwise` for a type that the schema has not. */
export function calledByType(schema: RecordSchema, type: string | undefined, otherwise = 'record'): string {
  return recordTypeOf(schema, type)?.label.toLowerCase() ?? otherwise;
}

/** What many records of a type are called: "Deals". */
export const pluralOf = ({ label, plural }: Pick<RecordType, 'label' | 'plural'>): string => plural ?? `${label}s`;

/** The name of the list of a record's line items, whose items have figures of their own. */
export const LINES = 'lines';
