import type { RoundingMode } from '../money/decimal';

/**
 * A figure's standard meaning: a term of EN 16931, once, so that page, register, CRM and e-invoice cannot disagree.
 * The business term stands behind each.
 */
export const ROLES = [
  'list-total', // quantities at BT-148, before any discount
  'line-discounts', // what discounts take off the lines: BT-106 less the list total
  'line-net', // BT-131
  'sum-of-lines', // BT-106
  'allowances', // BT-107
  'charges', // BT-108
  'net-total', // BT-109
  'tax-total', // BT-110
  'gross-total', // BT-112
  'prepaid', // BT-113
  'rounding', // BT-114
  'payable', // BT-115
  'tax-base', // BT-116
  'tax-amount', // BT-117
  'tax-category', // BT-118, of a line BT-151
  'tax-rate', // BT-119, of a line BT-152
  'preceding-invoice', // BT-25: the number of an invoice that this document refers to
  'prepaid-base', // what an invoice deducts of an earlier one: its base by tax category
  'prepaid-tax', // and the tax on it; both are part of BT-113
  'credited-tax', // the tax on a line of a credit note, whose net is BT-131
  'cost',
  'margin',
] as const;
export type Role = (typeof ROLES)[number];

/** The type that a figure with a role has: an amount, where nothing else is said. */
export const ROLE_TYPES: Readonly<Partial<Record<Role, FigureType>>> = {
  'tax-category': 'text',
  'tax-rate': 'percent',
  'preceding-invoice': 'text',
};

export const FIGURE_TYPES = ['amount', 'price', 'number', 'percent', 'text', 'date', 'boolean'] as const;
export type FigureType = (typeof FIGURE_TYPES)[number];

/** A figure's type in words, with its article. */
export const FIGURE_TYPE_WORDS: Readonly<Record<FigureType, string>> = {
  amount: 'an amount of money', price: 'a price', number: 'a number', percent: 'a percentage',
  text: 'a text', date: 'a date', boolean: 'yes or no',
}; // prettier-ignore

/** A named calculation. */
export interface Figure {
  name: string;
  label: string;
  formula: string;
  type: FigureType;
  role?: Role;
  /** Never printable: cost, margin. */
  internal?: boolean;
  /** Decimals to round to, where the type does not decide it (an amount rounds to its currency's minor unit). */
  digits?: number;
}

/** A list made from another one, with columns of its own: groups, tax rows, instalments. */
export interface DerivedList {
  name: string;
  label: string;
  formula: string;
  columns: Figure[];
}

/** A table of prices, tiers, rates or days that formulas look things up in: `tables.freight`. */
export interface LookupTable {
  name: string;
  label: string;
  columns: { name: string; label: string; type: TableColumnType; /** ISO 4217, for amounts. */ currency?: string }[];
  /** Decimal text, ISO 8601 days, or plain text by the column's type; empty is blank. A percent is a fraction. */
  rows: string[][];
}

export type TableColumnType = 'number' | 'percent' | 'money' | 'text' | 'date';

/** All figures of a template, and what must hold between them. */
export interface FigureSheet {
  /** Formula of the document's currency (ISO 4217). */
  currency: string;
  rounding: RoundingMode;
  perLine: Figure[];
  lists: DerivedList[];
  document: Figure[];
  /** Tables of the template's own. */
  tables?: LookupTable[];
  /** Printed columns that must sum to a printed figure: the formula of the column, and the figure's name. */
  sums: { column: string; figure: string }[];
}

/** The list whose items have the per-line figures. */
export const LINES = 'lines';
