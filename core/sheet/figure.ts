import { MEANINGS, type Meaning } from '../formula/meanings';
import {
  boolean,
  formula,
  formulaName,
  label,
  listOf,
  number,
  oneOf,
  shape,
  text,
  type InferType,
} from '../shape/shape';
import { ROUNDING_MODES } from '../money/rounding';

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

/**
 * A named calculation. `internal`: never printable (cost, margin). `digits`: decimals to round to, where the type does not
 * decide it (an amount rounds to its currency's minor unit); negative ones round to tens and hundreds.
 */
const figure = shape({
  name: formulaName(),
  label: label(),
  formula: formula().defined(),
  type: oneOf(FIGURE_TYPES).required(),
  meaning: oneOf(MEANINGS),
  internal: boolean(),
  digits: number().integer().min(-6).max(12),
}).required();
export type Figure = InferType<typeof figure>;

/** A list made from another one, with columns of its own: groups, tax rows, instalments. */
const derivedList = shape({
  name: formulaName(),
  label: label(),
  formula: formula().defined(),
  columns: listOf(figure, 200).required(),
}).required();
export type DerivedList = InferType<typeof derivedList>;

export const TABLE_COLUMN_TYPES = ['number', 'percent', 'money', 'text', 'date'] as const;
export type TableColumnType = (typeof TABLE_COLUMN_TYPES)[number];

const tableColumn = shape({
  name: formulaName(),
  label: label(),
  type: oneOf(TABLE_COLUMN_TYPES).required(),
  /** ISO 4217, for amounts. */
  currency: text(3).matches(/^[A-Z]{3}$/, 'the three capital letters of a currency'),
}).required();

/**
 * A table of prices, tiers, rates or days that formulas look things up in: `tables.freight`. Its cells are decimal text,
 * ISO 8601 days, or plain text by the column's type; an empty one is blank. A percent is a fraction.
 */
const lookupTable = shape({
  name: formulaName(),
  label: label(),
  columns: listOf(tableColumn, 40).min(1).required(),
  rows: listOf(listOf(text(2_000).defined(), 40).required(), 10_000).required(),
}).required();
export type LookupTable = InferType<typeof lookupTable>;

/**
 * All figures of a template, and what must hold between them. `currency`: formula of the document's currency (ISO 4217).
 * `sums`: printed columns that must sum to a printed figure, by the formula of the column and the figure's name.
 */
export const figureSheet = shape({
  currency: formula().required(),
  rounding: oneOf(ROUNDING_MODES).required(),
  perLine: listOf(figure, 200).required(),
  lists: listOf(derivedList, 50).required(),
  document: listOf(figure, 500).required(),
  /** Tables of the template's own. */
  tables: listOf(lookupTable, 50),
  sums: listOf(shape({ column: formula().required(), figure: formulaName() }).required(), 100).required(),
}).required();
export type FigureSheet = InferType<typeof figureSheet>;
