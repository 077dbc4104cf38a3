import type { DerivedList, Figure } from '../sheet/figure';
import {
  amount,
  APPLIED_RATE,
  dealSheet,
  figure,
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

/** Allowances and charges of the whole document (BT-107, BT-108), spread over the tax categories, with freight by weight. */
export const ALLOWANCES_AND_CHARGES: Calculation = {
  id: 'allowances-and-charges',
  label: 'Allowances, charges and freight by weight',
  purpose:
    'A discount on the whole order as an allowance and freight by weight as a charge of the whole document, each spread over the tax categories by their nets, so that every base is taxed as it is. What is returned weighs nothing, and a document that comes to nothing has neither.',
  sheet: dealSheet({
    tables: [
      {
        name: 'freight',
        label: 'Freight by weight',
        columns: [
          { name: 'from', label: 'From kg', type: 'number' },
          { name: 'price', label: 'Price', type: 'money' },
        ],
        rows: [
          ['0', '18.00'],
          ['50', '65.00'],
          ['500', '240.00'],
          ['2000', '640.00'],
          ['10000', '1890.00'],
        ],
      },
    ],
    perLine: [LINE_NET, ...LINE_TAX, figure('number', 'line_weight', 'Weight', 'quantity * (weight ?? 0)')],
    lists: [
      {
        ...TAX_ROWS,
        columns: [
          ...TAX_ROW_KEYS,
          amount('lines_net', 'Net of the lines', 'SUM(item.lines.net)'),
          amount(
            'allowance_part',
            'Part of the allowances',
            'PART(figures.allowances, tax_rows, lines_net)',
            'allowances',
          ),
          amount('charge_part', 'Part of the charges', 'PART(figures.charges, tax_rows, lines_net)', 'charges'),
          amount('base', 'Tax base', 'lines_net - allowance_part + charge_part', 'tax-base'),
          amount('tax_amount', 'Tax', 'base * tax_rate', 'tax-amount'),
        ],
      },
    ],
    document: [
      SUBTOTAL,
      figure('number', 'total_weight', 'Weight in kg', 'SUM(lines[not optional and quantity > 0].line_weight)'),
      amount('allowance_percent', 'Percentage off', 'subtotal * (deal.discount_percent ?? 0%)'),
      amount(
        'allowances',
        'Allowances',
        'IF(subtotal > 0, MIN(subtotal, allowance_percent + (deal.discount_amount ?? 0)), 0)',
        'allowances',
      ),
      amount(
        'charges',
        'Freight',
        'IF(total_weight <= 0 or subtotal <= 0, 0, LOOKUP(total_weight, tables.freight.from, tables.freight.price))',
        'charges',
      ),
      amount('net_total', 'Net total', 'subtotal - allowances + charges', 'net-total'),
      TAX_TOTAL,
      amount('total', 'Total', 'net_total + tax_total', 'gross-total'),
    ],
    sums: [SUM_OF_LINES, SUM_OF_TAX, { column: 'tax_rows.base', figure: 'net_total' }],
  }),
};

/**
 * What a deposit comes to, by tax category: the share of each category's net, and the tax on it. One rule for the document
 * that promises a deposit and for the invoice that asks it.
 */
const depositColumns = (share: string): Figure[] => [
  amount('deposit_base', 'Deposit, net', `base * ${share}`),
  amount('deposit_tax', 'Deposit, tax', 'deposit_base * tax_rate'),
];
const DEPOSIT = amount('deposit', 'Deposit', 'SUM(tax_rows.deposit_base) + SUM(tax_rows.deposit_tax)');

/** Tax by category, with what a deposit of some share takes of it. */
const taxRowsWithDeposit = (share: string): DerivedList => ({
  ...TAX_ROWS,
  columns: [...TAX_ROWS.columns, ...depositColumns(share)],
});

/** A deposit and instalments that add up to the total, by a table of shares. */
export const INSTALMENTS: Calculation = {
  id: 'instalments',
  label: 'Deposit and instalments',
  purpose:
    'A payment schedule by a table of shares, each with its event and days; the instalments add up to the total to the last unit. The deposit is the agreed percentage of each tax category and the tax on it, as the deposit invoice asks it.',
  sheet: dealSheet({
    tables: [
      {
        name: 'instalments',
        label: 'Instalments',
        columns: [
          { name: 'event', label: 'Due', type: 'text' },
          { name: 'share', label: 'Share', type: 'percent' },
          { name: 'days', label: 'Days after issue', type: 'number' },
        ],
        rows: [
          ['on order', '0.3', '0'],
          ['on delivery', '0.45', '60'],
          ['on completion', '0.25', '90'],
        ],
      },
    ],
    perLine: [LINE_NET, ...LINE_TAX],
    lists: [
      taxRowsWithDeposit('(deal.deposit_percent ?? 0%)'),
      {
        name: 'payments',
        label: 'Payment schedule',
        formula: 'SCHEDULE(total, tables.instalments)',
        columns: [figure('date', 'due_on', 'Due on', 'document.issue_date + days')],
      },
    ],
    document: [SUBTOTAL, TAX_TOTAL, TOTAL, DEPOSIT, amount('after_deposit', 'After the deposit', 'total - deposit')],
    sums: [SUM_OF_LINES, SUM_OF_TAX, { column: 'payments.amount', figure: 'total' }],
  }),
};

/** What the record's invoices ask and no credit note has taken off, by invoice, tax category and rate. */
const billedList = (columns: Figure[]): DerivedList => ({
  name: 'billed_rows',
  label: 'Invoiced before',
  formula: 'BILLED()',
  columns,
});

/** Sums of what was invoiced before in the tax row's own category, at its own rate. */
const billedBefore = (column: string) =>
  `SUM(billed_rows[tax_category = (this.tax_category ?? "") and tax_rate = this.applied_rate].${column})`;

/** A part of the work, or of what is left of it: never beyond zero on the one side, or beyond what is left on the other. */
const withinWhatIsLeft =
  'IF(order_net < 0, MIN(MAX(order_net * figures.share, order_net - billed_base), 0), MAX(MIN(order_net * figures.share, order_net - billed_base), 0))';

/** An invoice for a share of the order, by tax category. */
export const DEPOSIT_INVOICE: Calculation = {
  id: 'deposit-invoice',
  label: 'Deposit invoice',
  purpose:
    'The agreed deposit percentage of the order, by tax category, and no more than the order has left after earlier invoices. All deposits and the final invoice together come to the order, net and tax, to the last unit.',
  sheet: dealSheet({
    perLine: [
      { ...LINE_NET, meaning: undefined },
      { ...APPLIED_RATE, meaning: undefined },
    ],
    lists: [
      billedList([]),
      {
        name: 'tax_rows',
        label: 'Deposit by tax category',
        formula: 'GROUP(lines[not optional], tax_category, applied_rate)',
        columns: [
          ...TAX_ROW_KEYS,
          amount('order_net', 'Order, net', 'SUM(item.lines.net)'),
          amount('billed_base', 'Invoiced before, net', billedBefore('base')),
          amount('billed_tax', 'Invoiced before, tax', billedBefore('tax')),
          amount('base', 'Deposit, net', withinWhatIsLeft, 'tax-base'),
          amount('deposit_net', 'Net of the deposit’s line', 'base', 'line-net'),
          amount('tax_to_date', 'Tax with what was invoiced before', '(billed_base + base) * tax_rate'),
          amount('tax_amount', 'Tax', 'tax_to_date - billed_tax', 'tax-amount'),
        ],
      },
    ],
    document: [
      figure('percent', 'share', 'Share', 'deal.deposit_percent ?? 30%'),
      amount('order_total', 'Order, net', 'SUM(tax_rows.order_net)'),
      amount('subtotal', 'Net', 'SUM(tax_rows.base)', 'sum-of-lines'),
      TAX_TOTAL,
      TOTAL,
      amount('due', 'Amount due', 'total', 'payable'),
    ],
    sums: [
      { column: 'tax_rows.base', figure: 'subtotal' },
      SUM_OF_TAX,
      { column: 'tax_rows.order_net', figure: 'order_total' },
    ],
  }),
};

/** The invoice that a row of BILLED is of (BT-25), and its tax category and rate. */
const PRECEDING_INVOICE = figure('text', 'invoice', 'Invoice', 'number', { meaning: 'preceding-invoice' });
const BILLED_TAX: readonly Figure[] = [
  figure('text', 'category', 'Tax category', 'tax_category', { meaning: 'tax-category' }),
  figure('percent', 'rate', 'Tax rate', 'tax_rate', { meaning: 'tax-rate' }),
];

/** What a final invoice deducts, row by row, so that the register knows what it asks of each tax category. */
const DEDUCTED = billedList([
  PRECEDING_INVOICE,
  ...BILLED_TAX,
  amount('prepaid_base', 'Deducted, net', 'base', 'prepaid-base'),
  amount('prepaid_tax', 'Deducted, tax', 'tax', 'prepaid-tax'),
]);

/** The invoices that are deducted, one row each. */
const EARLIER_INVOICES: DerivedList = {
  name: 'earlier',
  label: 'Deducted invoices',
  formula: 'GROUP(billed_rows, number, date)',
  columns: [amount('billed_sum', 'Invoiced', 'SUM(item.lines.gross)')],
};

const PREPAID = amount('prepaid', 'Invoiced to date', 'SUM(earlier.billed_sum)', 'prepaid');
const SUM_OF_PREPAID = { column: 'earlier.billed_sum', figure: 'prepaid' };

/** The whole work, less what was invoiced before and not credited, and a retention held back. */
export const FINAL_INVOICE: Calculation = {
  id: 'final-invoice',
  label: 'Final invoice: billed to date deducted, retention held back',
  purpose:
    'The whole work, less what its earlier invoices ask and no credit note has taken off them, as the register has it, less a retention that is paid later.',
  sheet: dealSheet({
    perLine: [LINE_NET, ...LINE_TAX],
    lists: [TAX_ROWS, DEDUCTED, EARLIER_INVOICES],
    document: [
      SUBTOTAL,
      TAX_TOTAL,
      TOTAL,
      PREPAID,
      amount('retention', 'Retention', 'total * 5%'),
      amount('due', 'Due now', 'total - prepaid - retention'),
      amount('payable', 'Payable in all', 'total - prepaid', 'payable'),
      figure('date', 'retention_due', 'Retention due on', 'EDATE(document.issue_date, 12)'),
    ],
    sums: [SUM_OF_LINES, SUM_OF_TAX, SUM_OF_PREPAID],
  }),
};

/** Takes back what the deal's invoices ask. */
export const CREDIT_NOTE: Calculation = {
  id: 'credit-note',
  label: 'Credit note',
  purpose:
    'Everything that earlier invoices ask and that was not credited before, by invoice, tax category and rate. After it nothing is left of them, so that a later invoice deducts nothing.',
  sheet: dealSheet({
    lists: [
      {
        name: 'credited',
        label: 'Credited',
        formula: 'BILLED()',
        columns: [
          PRECEDING_INVOICE,
          ...BILLED_TAX,
          amount('credited_net', 'Net', 'base', 'line-net'),
          amount('credited_tax', 'Tax', 'tax', 'credited-tax'),
          amount('credited_gross', 'With tax', 'gross'),
        ],
      },
      {
        name: 'tax_rows',
        label: 'Tax by category',
        formula: 'GROUP(credited, tax_category, tax_rate)',
        columns: [
          ...BILLED_TAX,
          amount('base', 'Tax base', 'SUM(item.lines.credited_net)', 'tax-base'),
          amount('tax_amount', 'Tax', 'SUM(item.lines.credited_tax)', 'tax-amount'),
        ],
      },
    ],
    document: [
      amount('subtotal', 'Net', 'SUM(credited.credited_net)', 'sum-of-lines'),
      amount('tax_total', 'Tax', 'SUM(tax_rows.tax_amount)', 'tax-total'),
      TOTAL,
      amount('due', 'Amount credited', 'total', 'payable'),
    ],
    sums: [
      { column: 'credited.credited_net', figure: 'subtotal' },
      { column: 'credited.credited_tax', figure: 'tax_total' },
      { column: 'tax_rows.tax_amount', figure: 'tax_total' },
      { column: 'credited.credited_gross', figure: 'total' },
    ],
  }),
};

/** The payable amount to the nearest coin, the difference in a row of its own (BT-114). */
export const CASH_ROUNDING: Calculation = {
  id: 'cash-rounding',
  label: 'Cash rounding',
  purpose:
    'The payable amount in Swiss francs to the nearest 0.05; the difference is a row of its own. Other currencies stay as they are.',
  sheet: dealSheet({
    perLine: [LINE_NET, ...LINE_TAX],
    lists: [TAX_ROWS],
    document: [
      SUBTOTAL,
      TAX_TOTAL,
      TOTAL,
      amount('rounding', 'Rounding', 'IF(deal.currency = "CHF", MROUND(total, 0.05) - total, 0)', 'rounding'),
      amount('payable', 'Payable', 'total + rounding', 'payable'),
    ],
    sums: [SUM_OF_LINES, SUM_OF_TAX],
  }),
};

/** Due dates: net days, end of month, working days, never on a day on which no bank works. */
export const DUE_DATES: Calculation = {
  id: 'due-dates',
  label: 'Due dates by terms',
  purpose:
    'Net days, end of month and working days from the day of issue, over a table of holidays; a day that falls on a free one moves to the next working day.',
  sheet: dealSheet({
    tables: [
      {
        name: 'holidays',
        label: 'Holidays',
        columns: [
          { name: 'date', label: 'Date', type: 'date' },
          { name: 'name', label: 'Holiday', type: 'text' },
        ],
        rows: [
          ['2026-12-25', 'Christmas Day'],
          ['2026-12-28', 'Boxing Day, in place of the 26th'],
          ['2027-01-01', 'New Year’s Day'],
          ['2027-03-26', 'Good Friday'],
          ['2027-03-29', 'Easter Monday'],
          ['2027-05-03', 'Early May holiday'],
          ['2027-05-31', 'Spring holiday'],
        ],
      },
    ],
    document: [
      figure('date', 'due_net', 'Due, 30 days net', 'WORKDAY(document.issue_date + 30 - 1, 1, tables.holidays.date)'),
      figure('date', 'due_end_of_month', 'Due, 30 days end of month', 'EOMONTH(document.issue_date + 30, 0)'),
      figure(
        'date',
        'due_working_days',
        'Due, 10 working days',
        'WORKDAY(document.issue_date, 10, tables.holidays.date)',
      ),
      figure('date', 'discount_until', 'Cash discount until', 'WORKDAY(document.issue_date, 5, tables.holidays.date)'),
    ],
  }),
};
