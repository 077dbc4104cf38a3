import type { Meaning } from '../formula/meanings';
import type { RoundingMode } from '../money/decimal';

/** The type that a figure with a meaning has: an amount, where nothing else is said. */
export const MEANING_TYPES: Readonly<Partial<Record<Meaning, FigureType>>> = {
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
  meaning?: Meaning;
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
