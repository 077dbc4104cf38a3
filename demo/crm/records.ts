/** The records of the demo CRM, in the CRM's own field names and units. Every person and company is invented. */
export interface Account {
  id: string;
  name: string;
  street: string;
  postcode: string;
  city: string;
  country: string;
  vat_number: string | null;
  phone: string;
}

export interface Contact {
  id: string;
  name: string;
  account_id: string;
  salutation: string | null;
  given_name: string;
  family_name: string;
  email: string;
  job_title: string;
}

export interface Product {
  id: string;
  sku: string;
  name: string;
  description: string | null;
  unit: string;
  /** Decimal text; prices are in the deal's currency on the line, this one is in pounds. */
  list_price: string;
  currency: string;
  tax_category: string;
  /** Decimal text, in pounds. */
  cost: string;
  /** Kilograms; none for work. */
  weight: string | null;
  /** Name among the CRM's media. */
  picture: string | null;
  /** A PDF, by its name among the CRM's media. */
  data_sheet: string | null;
  name_nl: string | null;
  name_es: string | null;
  name_de: string | null;
  name_ar: string | null;
}

export interface LineItem {
  id: string;
  deal_id: string;
  position: number;
  product_id: string;
  section: string;
  sku: string;
  name: string;
  description: string | null;
  quantity: string;
  unit: string;
  unit_price: string | null;
  currency: string | null;
  /** Percent points: 10 is ten percent. */
  discount: string | null;
  tax_category: string;
  /** Percent points. */
  tax_rate: string;
  optional: boolean;
  trade_in: boolean;
  /** Taken off the whole line, after the percentage. */
  discount_amount: string | null;
  unit_cost: string | null;
  billing: 'once' | 'monthly' | 'yearly';
  term_months: number | null;
  /** SKU of the line that it is a part of. */
  part_of: string | null;
  /** How its parts are printed, where it has any. */
  parts_shown: 'indented' | 'rolled up' | 'hidden' | null;
  /** Kilograms of one unit. */
  weight: string | null;
}

export interface Deal {
  id: string;
  name: string;
  number: string;
  stage: string;
  owner: string;
  account_id: string;
  contact_id: string | null;
  currency: string | null;
  amount: string | null;
  closes_on: string;
  created_on: string;
  site_works: string[];
  heating: string;
  glazing: string | null;
  snow_zone: string | null;
  wind_zone: string | null;
  site_address: string | null;
  wanted_by: string | null;
  incoterm: string | null;
  order_number: string | null;
  quote_language: string;
  brand: 'Orrin & Vale' | 'Little Vale';
  /** Name among the CRM's media. */
  site_photo: string | null;
  /** HTML. */
  scope_note: string | null;
  validity_days: number | null;
  /** Percent points. */
  deposit_percent: string | null;
  /** Off the whole deal. Percent points. */
  discount_percent: string | null;
  discount_amount: string | null;
}

export interface CrmRecords {
  accounts: Account[];
  contacts: Contact[];
  products: Product[];
  deals: Deal[];
  lineItems: LineItem[];
}
