import type { DerivedList, Figure, FigureSheet } from '../../core/sheet/figure';
import type { SheetInput } from '../../core/sheet/sheet';
import type { RecordSchema } from '../../core/record/schema';
import type { RecordSnapshot } from '../../core/record/snapshot';

const field = (name: string, type: RecordSchema['types'][string]['fields'][string]['type'], target?: string) =>
  [name, { name, label: name, type, nullable: true, readonly: false, target }] as const;

export const benchSchema: RecordSchema = {
  types: {
    Deal: { name: 'Deal', label: 'Deal', fields: Object.fromEntries([field('currency', 'text'), field('rebate', 'percent'), field('lines', 'records', 'LineItem')]) },
    LineItem: {
      name: 'LineItem', label: 'Line item',
      fields: Object.fromEntries([
        field('name', 'text'), field('quantity', 'number'), field('unit_price', 'money'), field('unit_cost', 'money'),
        field('discount', 'percent'), field('tax_category', 'text'), field('tax_rate', 'percent'), field('optional', 'boolean'),
      ]),
    },
  },
}; // prettier-ignore

const figure = (name: string, formula: string, type: Figure['type'] = 'amount'): Figure => ({
  name,
  label: name.replaceAll('_', ' '),
  formula,
  type,
});

const PER_LINE = [
  figure('list_value', 'quantity * unit_price'),
  figure('line_discount', 'list_value * (discount ?? 0%)'),
  figure('after_discount', 'list_value - line_discount'),
  figure('rebate_part', 'after_discount * deal.rebate'),
  figure('net', 'after_discount - rebate_part'),
  figure('tax', 'net * tax_rate'),
  figure('gross', 'net + tax'),
  figure('cost', 'quantity * unit_cost'),
  figure('margin', 'net - cost'),
  figure('margin_rate', 'IF(net = 0, 0%, margin / net)', 'percent'),
];

const TAX_ROWS: DerivedList = {
  name: 'tax_rows',
  label: 'Tax by category',
  formula: 'GROUP(lines[not optional], tax_category, tax_rate)',
  columns: [figure('base', 'SUM(item.lines.net)'), figure('tax_amount', 'base * tax_rate')],
};

const NAMES = PER_LINE.slice(0, 9).map(({ name }) => name);
/** 25 figures of the document: sums over all, the chosen and the optional lines, and what is made from them. */
const DOCUMENT = [
  ...NAMES.map((name) => figure(`${name}_total`, `SUM(lines[not optional].${name})`)),
  ...NAMES.slice(0, 7).map((name) => figure(`${name}_extras`, `SUM(lines[optional].${name})`)),
  figure('line_count', 'COUNT(lines[not optional])', 'number'),
  figure('dearest', 'MAX(lines.unit_price)', 'price'),
  figure('average_net', 'AVERAGE(lines[not optional].net)', 'price'),
  figure('tax_by_category', 'SUM(tax_rows.tax_amount)'),
  figure('total', 'net_total + tax_by_category'),
  figure('deposit', 'total * 30%'),
  figure('due', 'total - deposit'),
  figure('margin_share', 'margin_total / net_total', 'percent'),
  figure('large', 'IF(total > 0 and line_count > 10, "large", "small")', 'text'),
];

export const benchSheet: FigureSheet = {
  currency: 'deal.currency',
  rounding: 'half-away',
  perLine: PER_LINE,
  lists: [TAX_ROWS],
  document: DOCUMENT,
  sums: [],
};

/** A deal of some lines; `quantity` of the line at `changed` is the one given. */
export function benchDeal(lines: number, changed = -1, quantity = '1'): RecordSnapshot {
  return {
    type: 'Deal',
    id: 'D-1',
    fields: {
      currency: 'GBP',
      rebate: { percent: '0.025' },
      lines: Array.from({ length: lines }, (_, index) =>
        benchLine(index, index === changed ? quantity : String((index % 37) + 1)),
      ),
    },
  };
}

export function benchLine(index: number, quantity: string): RecordSnapshot {
  return {
    type: 'LineItem',
    id: `L-${index}`,
    fields: {
      name: `Part ${index}`,
      quantity: { number: quantity },
      unit_price: {
        amount: `${(index * 7919) % 2000}.${String((index * 31) % 100).padStart(2, '0')}`,
        currency: 'GBP',
      },
      unit_cost: { amount: `${(index * 6421) % 1400}.${String((index * 17) % 100).padStart(2, '0')}`, currency: 'GBP' },
      discount: index % 4 === 0 ? { percent: '0.075' } : null,
      tax_category: index % 9 === 0 ? 'reduced' : 'standard',
      tax_rate: { percent: index % 9 === 0 ? '0.05' : '0.2' },
      optional: index % 13 === 0,
    },
  };
}

export function benchInput(snapshot: RecordSnapshot): SheetInput {
  return { sheet: benchSheet, schema: benchSchema, snapshot, root: 'deal', roots: {}, locale: 'en-GB', today: 20_780 };
}

/** A sheet of a hundred figures, for checking without data. */
export const hundredFigures: FigureSheet = {
  ...benchSheet,
  document: Array.from({ length: 90 }, (_, at) =>
    figure(
      `f${at}`,
      at === 0
        ? 'SUM(lines[not optional].net)'
        : `IF(f${at - 1} > 0, f${at - 1} * (1 - deal.rebate), SUM(lines[quantity > ${at}].gross))`,
    ),
  ),
};
