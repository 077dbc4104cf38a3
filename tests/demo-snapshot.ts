import { Decimal } from '../core/money/decimal';
import { createHash } from 'node:crypto';
import type { Asset, Assets } from '../core/template/composed';
import type { Template } from '../core/template/template';
import { demoRecords } from '../demo/crm/index';
import type { CrmRecords } from '../demo/crm/records';
import { metadataXml } from '../standins/crm/metadata';
import { demoLayouts } from '../demo/layouts';
import { withLayouts } from '../core/record/layout';
import { readCsdl } from '../server/records/odata/csdl';
import { demoMedia } from '../demo/crm/media';
import { shipped } from '../demo/shipped';
import type { FieldType } from '../core/record/schema';
import type { FieldValue, PictureField, RecordSnapshot } from '../core/record/snapshot';

/** The demo CRM's schema as the connector reads it from the CRM's own metadata, for tests of the core that need no CRM. */
export const demoSchema = withLayouts(readCsdl(metadataXml())!.records, demoLayouts);

/** A demo deal or account as a connector would read it, everything included. */
export function demoSnapshot(id: string): RecordSnapshot {
  return demoRecords.accounts.some((each) => each.id === id) ? accountSnapshot(id) : snapshotFrom(demoRecords, id);
}

/** The demo's records that a template can be filled from. */
export const demoRecordsFor = ({ record: { type } }: Template): string[] =>
  (type === 'Account' ? demoRecords.accounts : demoRecords.deals).map(({ id }) => id);

function accountSnapshot(id: string): RecordSnapshot {
  const own = <Each extends { account_id: string | null }>(all: readonly Each[]) =>
    all.filter((each) => each.account_id === id);
  const account = record(
    'Account',
    demoRecords.accounts.find((each) => each.id === id)!,
  );
  return withFields(account, {
    deals: own(demoRecords.deals).map((deal) => record('Deal', deal)),
    contacts: own(demoRecords.contacts).map((contact) => record('Contact', contact)),
  });
}

/** A deal of some records as a connector would read it, everything included. */
export function snapshotFrom(records: CrmRecords, id: string): RecordSnapshot {
  const deal = records.deals.find((each) => each.id === id);
  if (!deal) throw new Error(`There is no deal ${id}.`);
  const account = records.accounts.find((each) => each.id === deal.account_id)!;
  const contact = records.contacts.find((each) => each.id === deal.contact_id);
  const lines = records.lineItems.filter((line) => line.deal_id === id);
  const snapshot = record('Deal', deal);
  return {
    ...snapshot,
    fields: {
      ...snapshot.fields,
      account: record('Account', account),
      contact: contact ? record('Contact', contact) : null,
      lines: lines.map((line) => withFields(record('LineItem', line), { product: productOf(line.product_id) })),
    },
  };
}

function productOf(id: string): RecordSnapshot {
  return record(
    'Product',
    demoRecords.products.find((each) => each.id === id)!,
  );
}

interface Medium {
  sha256: string;
  type: string;
  content: Buffer;
  /** What is known of it once it was looked over. */
  seen: Omit<PictureField, 'link' | 'sha256'>;
}
const PICTURES = Object.fromEntries(
  Object.entries(demoMedia()).map(([name, { type, content }]): [string, Medium] => {
    const file = { sha256: createHash('sha256').update(content).digest('hex'), type, content };
    if (type === 'application/pdf') return [name, { ...file, seen: { mediaType: type, pages: 1 } as const }];
    return [name, { ...file, seen: type === 'image/png' ? { width: 960, height: 540 } : { width: 120, height: 90 } }];
  }),
);

/** The bytes of a template's own files, by their SHA-256. */
export function filesOf({ files = {} }: Template): Assets {
  return Object.fromEntries(
    Object.values(files).map(({ sha256, mediaType, content = '' }) => [
      sha256,
      { mediaType, bytes: new Uint8Array(Buffer.from(content, 'base64')) },
    ]),
  );
}

/** The bytes of every picture of the demo's records, and of the files of its templates, by their SHA-256. */
export const demoPictures: Assets = Object.assign(
  Object.fromEntries(
    Object.values(PICTURES).map(({ sha256, type, content }) => [
      sha256,
      { mediaType: type as Asset['mediaType'], bytes: new Uint8Array(content) },
    ]),
  ),
  ...shipped.templates.map(filesOf),
);

/** The same record with some fields of it changed. */
export function withFields(snapshot: RecordSnapshot, fields: Record<string, FieldValue>): RecordSnapshot {
  return { ...snapshot, fields: { ...snapshot.fields, ...fields } };
}

function record(type: string, source: object): RecordSnapshot {
  const raw = source as Record<string, unknown>;
  const fields = Object.values(demoSchema.types[type]!.fields)
    .filter(({ name, target }) => !target && name in raw)
    .map((field): [string, FieldValue] => [field.name, fieldValue(field.type, raw[field.name], raw.currency)]);
  return { type, id: String(raw.id), fields: Object.fromEntries(fields) };
}

function fieldValue(type: FieldType, raw: unknown, currency: unknown): FieldValue {
  if (raw === null) return null;
  switch (type) {
    case 'number':
      return { number: String(raw) };
    case 'percent':
      return { percent: Decimal.of(String(raw)).shifted(-2).toFixed() };
    case 'money':
      return { amount: String(raw), currency: currency as string | null };
    case 'date':
      return { date: String(raw) };
    case 'choices':
      return { choices: raw as string[] };
    case 'boolean':
      return raw as boolean;
    case 'rich':
      return { rich: String(raw) };
    case 'image': {
      const { sha256, seen } = PICTURES[String(raw)]!;
      return { image: { link: String(raw), sha256, ...seen } };
    }
    default:
      return String(raw);
  }
}
