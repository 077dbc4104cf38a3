import { Decimal } from '../core/money/decimal';
import { createHash } from 'node:crypto';
import type { Asset, Assets } from '../core/template/composed';
import type { Template } from '../core/template/template';
import { demoRecords } from '../demo/crm/index';
import type { CrmRecords } from '../demo/crm/records';
import { demoMedia } from '../demo/crm/media';
import type { FieldSchema, FieldType, RecordSchema } from '../core/record/schema';
import type { FieldValue, RecordSnapshot } from '../core/record/snapshot';

/** Field types of the demo CRM by record type, as a connector would read them from its metadata. */
const FIELDS: Record<string, Record<string, FieldType | [FieldType, string]>> = {
  Deal: {
    name: 'text', number: 'text', stage: 'choice', owner: 'text', currency: 'text', amount: 'money', closes_on: 'date',
    created_on: 'date', site_works: 'choices', heating: 'choice', glazing: 'choice', snow_zone: 'text', wind_zone: 'text',
    site_address: 'text', wanted_by: 'date', incoterm: 'text', order_number: 'text', quote_language: 'choice',
    validity_days: 'number', deposit_percent: 'percent', discount_percent: 'percent', discount_amount: 'money',
    brand: 'choice', site_photo: 'image', scope_note: 'rich', account: ['record', 'Account'], contact: ['record', 'Contact'], lines: ['records', 'LineItem'],
  },
  Account: { name: 'text', street: 'text', postcode: 'text', city: 'text', country: 'text', vat_number: 'text', phone: 'text' },
  Contact: { salutation: 'text', given_name: 'text', family_name: 'text', email: 'text', job_title: 'text' },
  Product: { sku: 'text', name: 'text', picture: 'image', name_nl: 'text', name_es: 'text', name_de: 'text', name_ar: 'text' },
  LineItem: {
    position: 'number', section: 'text', sku: 'text', name: 'text', description: 'text', quantity: 'number', unit: 'text',
    unit_price: 'money', currency: 'text', discount: 'percent', tax_category: 'choice', tax_rate: 'percent', optional: 'boolean', trade_in: 'boolean',
    discount_amount: 'money', unit_cost: 'money', billing: 'choice', term_months: 'number', part_of: 'text', parts_shown: 'choice', weight: 'number',
    deal: ['record', 'Deal'], product: ['record', 'Product'],
  },
}; // prettier-ignore

/** The values of choices that formulas compare with. */
const ALLOWED: Record<string, string[]> = {
  heating: ['none', 'pipe', 'air', 'floor'],
  site_works: ['groundwork', 'electrics', 'water', 'crane'],
  tax_category: ['standard', 'reduced', 'zero', 'exempt', 'reverse charge', 'export', 'outside scope'],
  billing: ['once', 'monthly', 'yearly'],
  brand: ['Orrin & Vale', 'Little Vale'],
  parts_shown: ['indented', 'rolled up', 'hidden'],
};

const LABELS: Record<string, string> = {
  LineItem: 'Line item',
  unit_price: 'Unit price',
  order_number: 'Order number',
};
const label = (name: string) => LABELS[name] ?? name.replaceAll('_', ' ');

/** The demo CRM's schema, for tests of the core that need no CRM. */
export const demoSchema: RecordSchema = {
  types: Object.fromEntries(
    Object.entries(FIELDS).map(([type, fields]) => [
      type,
      {
        name: type,
        label: label(type),
        fields: Object.fromEntries(
          Object.entries(fields).map(([name, kind]): [string, FieldSchema] => {
            const [fieldType, target] = Array.isArray(kind) ? kind : [kind, undefined];
            const allowed = ALLOWED[name]?.map((value) => ({ value, label: value }));
            return [
              name,
              { name, label: label(name), type: fieldType, nullable: true, readonly: false, target, allowed },
            ];
          }),
        ),
      },
    ]),
  ),
};

/** A demo deal as a connector would read it, everything included. */
export function demoSnapshot(id: string): RecordSnapshot {
  return snapshotFrom(demoRecords, id);
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

const PICTURES = Object.fromEntries(
  Object.entries(demoMedia()).map(([name, { type, content }]) => {
    const { width, height } = type === 'image/png' ? { width: 960, height: 540 } : { width: 120, height: 90 };
    return [name, { sha256: createHash('sha256').update(content).digest('hex'), type, content, width, height }];
  }),
);

/** The bytes of every picture of the demo, by their SHA-256. */
export const demoPictures: Assets = Object.fromEntries(
  Object.values(PICTURES).map(({ sha256, type, content }) => [
    sha256,
    { mediaType: type as Asset['mediaType'], bytes: new Uint8Array(content) },
  ]),
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

/** The same record with some fields of it changed. */
export function withFields(snapshot: RecordSnapshot, fields: Record<string, FieldValue>): RecordSnapshot {
  return { ...snapshot, fields: { ...snapshot.fields, ...fields } };
}

function record(type: string, source: object): RecordSnapshot {
  const raw = source as Record<string, unknown>;
  const fields = Object.entries(FIELDS[type]!)
    .filter(([name, kind]) => !Array.isArray(kind) && name in raw)
    .map(([name, kind]): [string, FieldValue] => [name, fieldValue(kind as FieldType, raw[name], raw.currency)]);
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
      const { sha256, width, height } = PICTURES[String(raw)]!;
      return { image: { link: String(raw), sha256, width, height } };
    }
    default:
      return String(raw);
  }
}
