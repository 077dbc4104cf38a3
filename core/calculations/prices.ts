import { BELONGS_TO, PARTS_NET } from './bundles';
import {
  amount,
  dealSheet,
  figure,
  internal,
  LINE_NET,
  LINE_TAX,
  SUBTOTAL,
  SUM_OF_LINES,
  SUM_OF_TAX,
  TAX_ROW_KEYS,
  TAX_ROWS,
  TAX_TOTAL,
  TOTAL,
  type Calculation,
} from './calculation';

/** List value, discount and net of each line, tax by category, total; optional lines summed apart. */
export const NET_PRICES: Calculation = {
  id: 'net-prices',
  label: 'Prices without tax, tax by category',
  purpose:
    'Lines at list value less a percentage, tax on the sum of each category, optional lines left out and summed apart. The usual sheet between companies.',
  sheet: dealSheet({
    perLine: [amount('list_value', 'List value', 'quantity * unit_price'), LINE_NET, ...LINE_TAX],
    lists: [TAX_ROWS],
    document: [
      amount('list_total', 'List value', 'SUM(lines[not optional].list_value)', 'list-total'),
      amount('discount_total', 'Discounts', 'subtotal - list_total', 'line-discounts'),
      SUBTOTAL,
      TAX_TOTAL,
      TOTAL,
      amount('extras_total', 'Optional extras', 'SUM(lines[optional].net)'),
    ],
    sums: [SUM_OF_LINES, SUM_OF_TAX, { column: 'lines[optional].net', figure: 'extras_total' }],
  }),
};

/** Tax rounded on every line, which some countries and many shops ask for. */
export const TAX_PER_LINE: Calculation = {
  id: 'tax-per-line',
  label: 'Tax rounded on every line',
  purpose:
    'Each line carries its own tax, rounded there; the tax of a category is the sum of its lines. Exempt, zero-rated and reverse-charge lines carry none, whatever rate they show.',
  sheet: dealSheet({
    perLine: [
      LINE_NET,
      ...LINE_TAX,
      amount('tax', 'Tax', 'net * applied_rate'),
      amount('gross', 'With tax', 'net + tax'),
    ],
    lists: [
      {
        ...TAX_ROWS,
        columns: [
          ...TAX_ROW_KEYS,
          amount('base', 'Tax base', 'SUM(item.lines.net)', 'tax-base'),
          amount('tax_amount', 'Tax', 'SUM(item.lines.tax)', 'tax-amount'),
        ],
      },
    ],
    document: [
      SUBTOTAL,
      TAX_TOTAL,
      TOTAL,
      figure(
        'boolean',
        'reverse_charge',
        'Reverse charge applies',
        '"reverse charge" in lines[not optional].tax_category',
      ),
    ],
    sums: [SUM_OF_LINES, SUM_OF_TAX, { column: 'lines[not optional].gross', figure: 'total' }],
  }),
};

/**
 * Prices that include tax. The tax of a category is extracted from the sum of its lines. The nets of its lines are rounded
 * together, so that they add up to the net of the category: a unit over goes to the line with the largest remainder.
 */
export const TAX_INCLUDED: Calculation = {
  id: 'tax-included',
  label: 'Prices that include tax',
  purpose:
    'For consumers: lines show what is paid, and the tax is taken out of the sum of each category. The net of the lines adds up to the net of their category, to the last unit.',
  sheet: dealSheet({
    perLine: [
      ...LINE_TAX,
      amount('gross', 'Sum', 'quantity * unit_price * (1 - discount ?? 0%)'),
      amount(
        'net',
        'Net',
        'IF(optional, 0, ROUNDTOGETHER(FIRST(tax_rows[this in item.lines]).lines, gross / (1 + applied_rate)))',
        'line-net',
      ),
    ],
    lists: [
      {
        ...TAX_ROWS,
        columns: [
          ...TAX_ROW_KEYS,
          amount('gross_total', 'With tax', 'SUM(item.lines.gross)'),
          amount('base', 'Tax base', 'gross_total / (1 + tax_rate)', 'tax-base'),
          amount('tax_amount', 'Tax', 'gross_total - base', 'tax-amount'),
        ],
      },
    ],
    document: [
      SUBTOTAL,
      TAX_TOTAL,
      amount('total', 'Total', 'SUM(lines[not optional].gross)', 'gross-total'),
      amount('included_tax', 'Tax included', 'total - subtotal'),
    ],
    sums: [
      { column: 'lines[not optional].gross', figure: 'total' },
      SUM_OF_LINES,
      SUM_OF_TAX,
      { column: 'tax_rows.base', figure: 'subtotal' },
    ],
  }),
};

/** Cost and margin, never printed. */
export const MARGIN: Calculation = {
  id: 'margin',
  label: 'Cost and margin',
  purpose: 'What the lines cost and what is left, on each line and in all. Internal: nothing of it can be printed.',
  sheet: dealSheet({
    perLine: [
      LINE_NET,
      internal('cost', 'Cost', 'quantity * unit_cost', 'cost'),
      internal('margin', 'Margin', 'net - cost', 'margin'),
    ],
    document: [
      SUBTOTAL,
      internal('cost_total', 'Cost', 'SUM(lines[not optional].cost)', 'cost'),
      internal('margin_total', 'Margin', 'subtotal - cost_total', 'margin'),
      figure('percent', 'margin_rate', 'Margin of net', 'IF(subtotal = 0, 0%, margin_total / subtotal)', {
        internal: true,
        digits: 4,
      }),
    ],
    sums: [SUM_OF_LINES],
  }),
};

/** Parts of a bundle roll up into the line that they are a part of, which alone shows a sum. */
export const BUNDLES: Calculation = {
  id: 'bundles',
  label: 'Bundles rolled up',
  purpose:
    'A line that other lines are a part of, directly or by way of another part, shows the sum of itself and all of them; print the table over lines[belongs_to = ""], the parts under it without sums. Parts of an optional line that are not optional themselves stand alone.',
  sheet: dealSheet({
    perLine: [
      LINE_NET,
      ...LINE_TAX,
      BELONGS_TO,
      amount('parts_net', 'Net of the parts', PARTS_NET),
      amount('rolled_up', 'Net with parts', 'IF(belongs_to = "", net + parts_net, 0)'),
    ],
    lists: [TAX_ROWS],
    document: [SUBTOTAL, TAX_TOTAL, TOTAL],
    sums: [SUM_OF_LINES, SUM_OF_TAX, { column: 'lines[not optional].rolled_up', figure: 'subtotal' }],
  }),
};
