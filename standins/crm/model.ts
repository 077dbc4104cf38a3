/** A value that a property may have; with what people call it, where that is something else. */
export type AllowedValue = string | { value: string; label: string };

/** What the simulated CRM keeps: its record types as an OData service would declare them. */
export type PropertyType =
  | 'Edm.String'
  | 'Edm.Decimal'
  | 'Edm.Boolean'
  | 'Edm.Date'
  | 'Edm.DateTimeOffset'
  | 'Edm.Int32'
  | 'Collection(Edm.String)'
  | 'Edm.Stream';

export interface Property {
  name: string;
  type: PropertyType;
  label: string;
  nullable?: boolean;
  computed?: boolean;
  /** Property that holds the ISO 4217 code of this sum. */
  currency?: string;
  /** UCUM unit; `%` says that 10 is ten percent. */
  unit?: string;
  allowed?: readonly AllowedValue[];
  /** Of a record's last change: when it was, or whose. */
  ofChange?: 'at' | 'by';
  /** What a text is written in, where it is more than a text. */
  mediaType?: 'text/html';
}

/** A relation: to one record by a foreign key here, or to many by a foreign key there. */
export interface Navigation {
  name: string;
  label: string;
  target: string;
  key: string;
  many: boolean;
  /** The property that its records are in order of. */
  orderedBy?: string;
}

export interface EntityType {
  name: string;
  set: string;
  label: string;
  plural: string;
  properties: readonly Property[];
  navigations: readonly Navigation[];
  /** Whether files can be put on its records. */
  takesFiles?: true;
  /** Whether new records can be written from outside, on one that they belong to. */
  takesNew?: true;
}

const text = (name: string, label: string, more: Partial<Property> = {}): Property => ({
  name,
  type: 'Edm.String',
  label,
  nullable: true,
  ...more,
});
const decimal = (name: string, label: string, more: Partial<Property> = {}): Property => ({
  name,
  type: 'Edm.Decimal',
  label,
  nullable: true,
  ...more,
});
const date = (name: string, label: string): Property => ({ name, type: 'Edm.Date', label, nullable: true });
/** A picture, or a PDF; what the record keeps is its name among the service's media. */
const picture = (name: string, label: string): Property => ({
  name,
  type: 'Edm.Stream',
  label,
  nullable: true,
  computed: true,
});
const changed = (): Property[] => [
  { name: 'updated_at', type: 'Edm.DateTimeOffset', label: 'Changed', nullable: true, computed: true, ofChange: 'at' },
  text('updated_by', 'Changed by', { computed: true, ofChange: 'by' }),
];
const ID: Property = { name: 'id', type: 'Edm.String', label: 'Identifier', computed: true };

export const STAGES = [
  'Enquiry',
  'Site visit',
  'Quoted',
  'Negotiation',
  'Won',
  'Delivered',
  'Invoiced',
  'Lost',
] as const;

const named = (labels: Readonly<Record<string, string>>): AllowedValue[] =>
  Object.entries(labels).map(([value, label]) => ({ value, label }));

const LANGUAGES = named({ en: 'English', nl: 'Dutch', es: 'Spanish', de: 'German', ar: 'Arabic' });
const COUNTRIES = named({
  GB: 'United Kingdom', IE: 'Ireland', NL: 'Netherlands', BE: 'Belgium', LU: 'Luxembourg', FR: 'France', DE: 'Germany',
  CH: 'Switzerland', AT: 'Austria', ES: 'Spain', PT: 'Portugal', IT: 'Italy', PL: 'Poland', DK: 'Denmark', SE: 'Sweden',
  NO: 'Norway', AE: 'United Arab Emirates', KW: 'Kuwait', SA: 'Saudi Arabia', US: 'United States', CA: 'Canada', JP: 'Japan',
  AU: 'Australia', NZ: 'New Zealand',
}); // prettier-ignore
const ACTIVITIES = named({ note: 'Note', call: 'Call', message: 'Message', visit: 'Visit' });
const UNITS = named({
  pc: 'piece', bay: 'bay', m: 'metre', 'm²': 'square metre', day: 'day', session: 'session', job: 'job', load: 'load',
  month: 'month', year: 'year',
}); // prettier-ignore

const TYPES: EntityType[] = [
  {
    name: 'Deal', set: 'Deals', label: 'Deal', plural: 'Deals', takesFiles: true,
    properties: [
      ID, text('name', 'Name', { nullable: false }), text('number', 'Number', { computed: true }),
      text('stage', 'Stage', { allowed: STAGES, nullable: false }), text('owner', 'Owner'),
      text('currency', 'Currency'), decimal('amount', 'Amount', { currency: 'currency' }),
      date('closes_on', 'Closing date'), date('created_on', 'Created'),
      { name: 'site_works', type: 'Collection(Edm.String)', label: 'Site works', allowed: ['groundwork', 'electrics', 'water', 'crane'] },
      text('heating', 'Heating', { allowed: ['none', 'pipe', 'air', 'floor'], nullable: false }),
      text('glazing', 'Glazing', { allowed: ['toughened', 'double', 'polycarbonate'] }),
      text('snow_zone', 'Snow zone'), text('wind_zone', 'Wind zone'), text('site_address', 'Site address'),
      date('wanted_by', 'Wanted by'), text('incoterm', 'Incoterm'), text('order_number', 'Purchase-order number'),
      text('quote_language', 'Quote language', { allowed: LANGUAGES }),
      text('brand', 'Brand', { allowed: ['Orrin & Vale', 'Little Vale'], nullable: false }), picture('site_photo', 'Site photo'),
      text('scope_note', 'Scope note', { mediaType: 'text/html' }),
      { name: 'validity_days', type: 'Edm.Int32', label: 'Validity in days', nullable: true },
      decimal('deposit_percent', 'Deposit', { unit: '%' }), decimal('discount_percent', 'Discount', { unit: '%' }),
      decimal('discount_amount', 'Discount in money', { currency: 'currency' }), text('document_link', 'Latest document'), ...changed(),
    ],
    navigations: [
      { name: 'account', label: 'Account', target: 'Account', key: 'account_id', many: false },
      { name: 'contact', label: 'Contact', target: 'Contact', key: 'contact_id', many: false },
      { name: 'lines', label: 'Line items', target: 'LineItem', key: 'deal_id', many: true, orderedBy: 'position' },
      { name: 'activities', label: 'Activities', target: 'Activity', key: 'deal_id', many: true, orderedBy: 'written_at' },
    ],
  },
  {
    name: 'Account', set: 'Accounts', label: 'Account', plural: 'Accounts', takesFiles: true,
    properties: [
      ID, text('name', 'Name', { nullable: false }), text('street', 'Street'), text('postcode', 'Postcode'), text('city', 'City'),
      text('country', 'Country', { allowed: COUNTRIES }), text('vat_number', 'VAT number'), text('phone', 'Telephone'), ...changed(),
    ],
    navigations: [
      { name: 'contacts', label: 'Contacts', target: 'Contact', key: 'account_id', many: true, orderedBy: 'family_name' },
      { name: 'deals', label: 'Deals', target: 'Deal', key: 'account_id', many: true, orderedBy: 'number' },
      { name: 'activities', label: 'Activities', target: 'Activity', key: 'account_id', many: true, orderedBy: 'written_at' },
    ],
  },
  {
    name: 'Contact', set: 'Contacts', label: 'Contact', plural: 'Contacts', takesFiles: true,
    properties: [
      ID, text('name', 'Name', { computed: true }), text('salutation', 'Salutation'), text('given_name', 'Given name'), text('family_name', 'Family name'),
      text('email', 'E-mail'), text('job_title', 'Job title'), ...changed(),
    ],
    navigations: [
      { name: 'account', label: 'Account', target: 'Account', key: 'account_id', many: false },
      { name: 'deals', label: 'Deals', target: 'Deal', key: 'contact_id', many: true, orderedBy: 'number' },
      { name: 'activities', label: 'Activities', target: 'Activity', key: 'contact_id', many: true, orderedBy: 'written_at' },
    ],
  },
  {
    name: 'Product', set: 'Products', label: 'Product', plural: 'Products',
    properties: [
      ID, text('sku', 'SKU'), text('name', 'Name', { nullable: false }), text('description', 'Description'), text('unit', 'Unit', { allowed: UNITS }),
      text('currency', 'Currency'), decimal('list_price', 'List price', { currency: 'currency' }), text('tax_category', 'Tax category'),
      decimal('cost', 'Cost', { currency: 'currency' }), decimal('weight', 'Weight', { unit: 'kg' }), picture('picture', 'Picture'), picture('data_sheet', 'Data sheet'),
      text('name_nl', 'Name, Dutch'), text('name_es', 'Name, Spanish'), text('name_de', 'Name, German'), text('name_ar', 'Name, Arabic'),
    ],
    navigations: [],
  },
  {
    name: 'LineItem', set: 'LineItems', label: 'Line item', plural: 'Line items',
    properties: [
      ID, { name: 'position', type: 'Edm.Int32', label: 'Position', nullable: false }, text('section', 'Section'), text('sku', 'SKU'),
      text('name', 'Name', { nullable: false }), text('description', 'Description'), decimal('quantity', 'Quantity'),
      text('unit', 'Unit', { allowed: UNITS }), decimal('unit_price', 'Unit price', { currency: 'currency' }), text('currency', 'Currency'),
      decimal('discount', 'Discount', { unit: '%' }),
      text('tax_category', 'Tax category', { allowed: ['standard', 'reduced', 'zero', 'exempt', 'reverse charge', 'export', 'outside scope'] }),
      decimal('tax_rate', 'Tax rate', { unit: '%' }), { name: 'optional', type: 'Edm.Boolean', label: 'Optional', nullable: false },
      { name: 'trade_in', type: 'Edm.Boolean', label: 'Return or trade-in', nullable: false },
      decimal('discount_amount', 'Discount in money', { currency: 'currency' }), decimal('unit_cost', 'Unit cost', { currency: 'currency' }),
      text('billing', 'Billing', { allowed: ['once', 'monthly', 'yearly'], nullable: false }),
      { name: 'term_months', type: 'Edm.Int32', label: 'Term in months', nullable: true },
      text('part_of', 'Part of'), text('parts_shown', 'Parts shown', { allowed: ['indented', 'rolled up', 'hidden'] }), decimal('weight', 'Weight', { unit: 'kg' }), ...changed(),
    ],
    navigations: [
      { name: 'product', label: 'Product', target: 'Product', key: 'product_id', many: false },
      { name: 'deal', label: 'Deal', target: 'Deal', key: 'deal_id', many: false },
    ],
  },
  {
    name: 'Activity', set: 'Activities', label: 'Activity', plural: 'Activities', takesNew: true,
    properties: [
      ID, text('kind', 'Kind', { allowed: ACTIVITIES, nullable: false }), text('subject', 'Subject', { nullable: false }), text('text', 'Text'),
      text('written_at', 'Written', { computed: true }),
    ],
    navigations: [],
  },
]; // prettier-ignore
/** The record types as they are now. */
export const ENTITY_TYPES: readonly EntityType[] = TYPES;

/** What a record says of its last change. */
export const ofChange = ({ properties }: EntityType, { at, by }: { at: Date; by: string }): Record<string, string> =>
  Object.fromEntries(
    properties.flatMap((each) => (each.ofChange ? [[each.name, each.ofChange === 'at' ? at.toISOString() : by]] : [])),
  );

/** A field that whoever runs the CRM gave another name. */
export interface Renaming {
  /** The record type's name. */
  type: string;
  from: string;
  to: string;
}

/** Why a field cannot be renamed so, in a sentence; undefined where it can. */
export function refuseRenaming({ type, from, to }: Renaming): string | undefined {
  const found = TYPES.find(({ name }) => name === type);
  if (!found) return `There is no type ${type}.`;
  if (from === 'id' || !found.properties.some(({ name }) => name === from)) return `${type} has no field ${from}.`;
  if (!/^[a-z][a-z0-9_]{0,39}$/.test(to)) return 'A name has small letters, digits and “_”, a letter first.';
  const taken = [
    ...found.properties.map(({ name }) => name),
    ...found.navigations.flatMap(({ name, key }) => [name, key]),
  ];
  return taken.includes(to) ? `${type} has ${to} already.` : undefined;
}

/** Gives a field another name, wherever the types mention it. */
export function renameField({ type, from, to }: Renaming): void {
  const renamed = (name: string) => (name === from ? to : name);
  for (const [at, each] of TYPES.entries()) {
    const isIt = each.name === type;
    const properties = each.properties.map((property) => ({
      ...property,
      name: renamed(property.name),
      ...(property.currency && { currency: renamed(property.currency) }),
    }));
    const navigations = each.navigations.map((navigation) =>
      navigation.target === type && navigation.orderedBy
        ? { ...navigation, orderedBy: renamed(navigation.orderedBy) }
        : navigation,
    );
    TYPES[at] = { ...each, ...(isIt && { properties }), navigations };
  }
}

/** An allowed value itself, without what people call it. */
export const valueOf = (each: AllowedValue): string => (typeof each === 'string' ? each : each.value);

export const typeOfSet = (set: string) => ENTITY_TYPES.find((type) => type.set === set);
export const typeNamed = (name: string) => ENTITY_TYPES.find((type) => type.name === name)!;

/** What is wrong with a value for a property, in a sentence; undefined if nothing is. */
export function refusal(property: Property, value: unknown): string | undefined {
  const { name, type, nullable, computed } = property;
  const allowed = property.allowed?.map(valueOf);
  if (computed) return `${name} cannot be changed.`;
  if (value === null) return nullable ? undefined : `${name} cannot be empty.`;
  switch (type) {
    case 'Edm.String':
      if (typeof value !== 'string') return `${name} is a text.`;
      return allowed && !allowed.includes(value) ? `${name} is one of ${allowed.join(', ')}.` : undefined;
    case 'Edm.Stream':
      return `${name} is a picture: send it to its own address.`;
    case 'Edm.Decimal':
      return /^-?\d{1,20}(\.\d{1,10})?$/.test(String(value)) ? undefined : `${name} is a decimal number.`;
    case 'Edm.Int32':
      return Number.isInteger(value) ? undefined : `${name} is a whole number.`;
    case 'Edm.Boolean':
      return typeof value === 'boolean' ? undefined : `${name} is true or false.`;
    case 'Edm.DateTimeOffset':
      return typeof value === 'string' && !Number.isNaN(Date.parse(value)) ? undefined : `${name} is a moment.`;
    case 'Edm.Date':
      return typeof value === 'string' && isDay(value) ? undefined : `${name} is a date such as 2026-11-23.`;
    case 'Collection(Edm.String)':
      if (!Array.isArray(value)) return `${name} is a list of texts.`;
      return value.every((item) => allowed?.includes(item as string) ?? true)
        ? undefined
        : `${name} holds only ${allowed!.join(', ')}.`;
  }
}

function isDay(value: string): boolean {
  const day = new Date(`${value}T00:00:00Z`);
  // A day that there is not is read as one of the next month.
  return /^\d{4}-\d{2}-\d{2}$/.test(value) && !Number.isNaN(day.getTime()) && day.toISOString().startsWith(value);
}
