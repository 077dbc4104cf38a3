import type { Meaning } from '../formula/meanings';
import type { DerivedList, Figure, FigureSheet, FigureType } from '../sheet/figure';

/** A ready-made figure sheet: complete in itself, to be taken into a template and changed there. */
export interface Calculation {
  id: string;
  label: string;
  /** What it computes and when to take it, in a sentence or two. */
  purpose: string;
  sheet: FigureSheet;
}

/** A figure by name, label and formula. */
export function figure(
  type: FigureType,
  name: string,
  label: string,
  formula: string,
  more: { meaning?: Meaning; internal?: true; digits?: number } = {},
): Figure {
  return { name, label, formula, type, ...more };
}

export const amount = (name: string, label: string, formula: string, meaning?: Meaning): Figure =>
  figure('amount', name, label, formula, meaning && { meaning });

/** A figure that is never printed. */
export const internal = (name: string, label: string, formula: string, meaning?: Meaning): Figure =>
  figure('amount', name, label, formula, { internal: true, ...(meaning && { meaning }) });

/** A sheet over the deal's lines, in the deal's currency, rounding half away from zero. */
export function dealSheet(parts: Partial<FigureSheet>): FigureSheet {
  return { currency: 'deal.currency', rounding: 'half-away', perLine: [], lists: [], document: [], sums: [], ...parts };
}

/**
 * The rate that a line is taxed at: none in a category that bears no tax, whatever rate the line shows (EN 16931 BR-Z-5,
 * BR-E-5, BR-AE-5, BR-G-5, BR-O-5).
 */
export const APPLIED_RATE = figure(
  'percent',
  'applied_rate',
  'Tax rate applied',
  'SWITCH(tax_category, "zero", 0%, "exempt", 0%, "reverse charge", 0%, "export", 0%, "outside scope", 0%, tax_rate)',
  { meaning: 'tax-rate' },
);

/** A line's tax category and the rate it is taxed at (BT-151, BT-152). */
export const LINE_TAX: readonly Figure[] = [
  figure('text', 'line_category', 'Tax category', 'tax_category', { meaning: 'tax-category' }),
  APPLIED_RATE,
];

/** A tax row's category and rate (BT-118, BT-119). */
export const TAX_ROW_KEYS: readonly Figure[] = [
  figure('text', 'category', 'Tax category', 'tax_category', { meaning: 'tax-category' }),
  figure('percent', 'tax_rate', 'Tax rate', 'applied_rate', { meaning: 'tax-rate' }),
];

/** Tax by category and rate, on the sum of each category: the way of EN 16931 (BR-CO-17). */
export const TAX_ROWS: DerivedList = {
  name: 'tax_rows',
  label: 'Tax by category',
  formula: 'GROUP(lines[not optional], tax_category, applied_rate)',
  columns: [
    ...TAX_ROW_KEYS,
    amount('base', 'Tax base', 'SUM(item.lines.net)', 'tax-base'),
    amount('tax_amount', 'Tax', 'base * tax_rate', 'tax-amount'),
  ],
};

export const LINE_NET = amount('net', 'Net', 'quantity * unit_price * (1 - discount ?? 0%)', 'line-net');
export const SUBTOTAL = amount('subtotal', 'Subtotal', 'SUM(lines[not optional].net)', 'sum-of-lines');
export const TAX_TOTAL = amount('tax_total', 'Tax', 'SUM(tax_rows.tax_amount)', 'tax-total');
export const TOTAL = amount('total', 'Total', 'subtotal + tax_total', 'gross-total');

export const SUM_OF_LINES = { column: 'lines[not optional].net', figure: 'subtotal' };
export const SUM_OF_TAX = { column: 'tax_rows.tax_amount', figure: 'tax_total' };
