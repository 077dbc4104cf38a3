import { canonicalJson } from '../shape/canonical';

/**
 * A value of a field, self-describing and free of floats, so that a snapshot can be stored and read years later.
 * Decimals are decimal strings; a percent is a fraction (`0.1` is ten percent); a date is ISO 8601.
 */
export type FieldValue =
  | null
  | string
  | boolean
  | { number: string }
  | { percent: string }
  | { amount: string; currency: string | null }
  | { date: string }
  | { datetime: string }
  | { choices: readonly string[] }
  /** Formatted text as HTML, as the CRM holds it: sanitised where it is read as blocks. */
  | { rich: string }
  | { image: PictureField }
  | RecordSnapshot
  | readonly RecordSnapshot[];

/** A picture of a record, or a PDF: where the CRM keeps it, and what it was when it was fetched. */
export interface PictureField {
  /** The CRM's own path to it. */
  link: string;
  /** The CRM's entity tag of its bytes, where it tells one. */
  version?: string;
  /** SHA-256 of its bytes; absent until it was fetched, and where it was refused. */
  sha256?: string;
  /** Said of a PDF, with its pages: it is joined to documents and never printed on their pages. */
  mediaType?: 'application/pdf';
  pages?: number;
  /** The standard for archives that it says it keeps. */
  standard?: 'pdf/a-2b';
  /** In pixels. */
  width?: number;
  height?: number;
  /** Why it cannot be printed, in a sentence. */
  refused?: string;
}

/** A record as it was when it was read, with the related records that were asked for. */
export interface RecordSnapshot {
  type: string;
  id: string;
  /** The CRM's entity tag, for conditional writes. */
  version?: string;
  fields: Readonly<Record<string, FieldValue>>;
}

/** Whether two readings of a record say the same. Entity tags do not count: they change with fields that were not read. */
export const saysSame = (one: RecordSnapshot, other: RecordSnapshot): boolean =>
  canonicalJson(withoutTags(one)) === canonicalJson(withoutTags(other));

function withoutTags({ version: _, ...record }: RecordSnapshot): RecordSnapshot {
  const fields = Object.entries(record.fields).map(([name, value]): [string, FieldValue] => {
    if (value === null) return [name, value];
    if (isRecordList(value)) return [name, value.map(withoutTags)];
    return [name, isRecord(value) ? withoutTags(value) : value];
  });
  return { ...record, fields: Object.fromEntries(fields) };
}

/** Tells a related record from the other objects a field may hold. */
export function isRecord(value: FieldValue): value is RecordSnapshot {
  return typeof value === 'object' && value !== null && 'fields' in value;
}

/** Tells a list of related records from every other field value. */
export function isRecordList(value: FieldValue): value is readonly RecordSnapshot[] {
  return Array.isArray(value);
}
