import type { RecordLayout } from '../core/record/layout';

/** How the records of the demo's CRM are shown. */
export const demoLayouts: Readonly<Record<string, RecordLayout>> = {
  Deal: {
    icon: 'briefcase',
    parts: {
      name: 'name',
      number: 'number',
      account: 'account',
      stage: 'stage',
      owner: 'owner',
      amount: 'amount',
      day: 'closes_on',
      changedBy: 'updated_by',
      changedAt: 'updated_at',
    },
    groups: [
      {
        label: 'Deal',
        fields: [
          'name',
          'stage',
          'owner',
          'amount',
          'currency',
          'closes_on',
          'order_number',
          'validity_days',
          'deposit_percent',
          'discount_percent',
          'discount_amount',
          'quote_language',
          'brand',
          'incoterm',
        ],
      },
      {
        label: 'Site',
        fields: [
          'site_address',
          'scope_note',
          'site_works',
          'heating',
          'glazing',
          'snow_zone',
          'wind_zone',
          'wanted_by',
        ],
      },
    ],
    columns: ['stage', 'amount', 'closes_on'],
    needsQuote: ['Enquiry', 'Site visit'],
    search: ['order_number', 'contact'],
  },
  Account: {
    icon: 'building',
    parts: { name: 'name', changedBy: 'updated_by', changedAt: 'updated_at' },
    groups: [{ label: 'Account', fields: ['name', 'street', 'postcode', 'city', 'country', 'vat_number', 'phone'] }],
    columns: ['city', 'country', 'phone'],
    needsQuote: [],
    search: ['street', 'postcode', 'city', 'vat_number', 'phone'],
  },
  Contact: {
    icon: 'person',
    parts: { name: 'name', account: 'account', changedBy: 'updated_by', changedAt: 'updated_at' },
    groups: [{ label: 'Contact', fields: ['salutation', 'given_name', 'family_name', 'job_title', 'email'] }],
    columns: ['job_title', 'email'],
    needsQuote: [],
    search: ['email', 'job_title'],
  },
  LineItem: {
    parts: { name: 'name', changedBy: 'updated_by', changedAt: 'updated_at' },
    groups: [],
    columns: ['quantity', 'unit', 'unit_price', 'discount', 'tax_rate', 'tax_category'],
    needsQuote: [],
    search: [],
  },
};
