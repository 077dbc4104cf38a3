/**
 * A figure's standard meaning: a term of EN 16931, once, so that page, register, CRM and e-invoice cannot disagree.
 * The business term stands behind each.
 */
export const MEANINGS = [
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
export type Meaning = (typeof MEANINGS)[number];

/** An amount as decimal text, with its currency. */
export interface MeaningAmount {
  value: string;
  currency: string;
}

type PlainMeaning = 'tax-category' | 'tax-rate' | 'preceding-invoice';

/** Values of figures by their meanings: amounts, texts as they are, and a rate as a fraction in decimal text. */
export type MeaningValues = Readonly<
  Partial<Record<Exclude<Meaning, PlainMeaning>, MeaningAmount> & Record<PlainMeaning, string>>
>;

/** What a document says in the terms of EN 16931: by its own figures, and by its rows (lines, tax categories, references). */
export interface Meanings {
  document: MeaningValues;
  rows: readonly { list: string; values: MeaningValues }[];
}

/** The meanings that a document was kept with; documents of before their rows were kept have their own figures' alone. */
export function keptMeanings(kept: Meanings | MeaningValues): Meanings {
  return 'rows' in kept ? kept : { document: kept, rows: [] };
}
