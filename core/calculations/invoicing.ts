import { amount, dealSheet, figure, LINE_NET, SUBTOTAL, SUM_OF_LINES, SUM_OF_TAX, TAX_ROWS, TAX_TOTAL, TOTAL, type Calculation } from './calculation'; // prettier-ignore

/** Allowances and charges of the whole document (BT-107, BT-108), spread over the tax categories, with freight by weight. */
export const ALLOWANCES_AND_CHARGES: Calculation = {
  id: 'allowances-and-charges',
  label: 'Allowances, charges and freight by weight',
  purpose:
    'The deal’s discount as an allowance and freight by weight as a charge of the whole document, each spread over the tax categories by their nets, so that every base is taxed as it is.',
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
    perLine: [LINE_NET, figure('number', 'line_weight', 'Weight', 'quantity * (weight ?? 0)')],
    lists: [
      {
        ...TAX_ROWS,
        columns: [
          amount('lines_net', 'Net of the lines', 'SUM(item.lines.net)'),
          amount('allowance_part', 'Part of the allowances', 'PART(figures.allowances, tax_rows, lines_net)'),
          amount('charge_part', 'Part of the charges', 'PART(figures.charges, tax_rows, lines_net)'), // prettier-ignore
          amount('base', 'Tax base', 'lines_net - allowance_part + charge_part', 'tax-base'),
          amount('tax_amount', 'Tax', 'base * tax_rate', 'tax-amount'),
        ],
      },
    ],
    document: [
      SUBTOTAL,
      figure('number', 'total_weight', 'Weight in kg', 'SUM(lines[not optional].line_weight)'),
      amount('allowance_percent', 'Percentage off', 'subtotal * (deal.discount_percent ?? 0%)'),
      amount(
        'allowances',
        'Allowances',
        'MIN(subtotal, allowance_percent + (deal.discount_amount ?? 0))',
        'allowances',
      ),
      amount(
        'charges',
        'Freight',
        'IF(total_weight = 0 or subtotal = 0, 0, LOOKUP(total_weight, tables.freight.from, tables.freight.price))',
        'charges',
      ),
      amount('net_total', 'Net total', 'subtotal - allowances + charges', 'net-total'),
      TAX_TOTAL,
      amount('total', 'Total', 'net_total + tax_total', 'gross-total'),
    ],
    sums: [SUM_OF_LINES, SUM_OF_TAX, { column: 'tax_rows.base', figure: 'net_total' }],
  }),
};

/** A deposit and instalments that add up to the total, by a table of shares. */
export const INSTALMENTS: Calculation = {
  id: 'instalments',
  label: 'Deposit and instalments',
  purpose:
    'A payment schedule by a table of shares, each with its event and days; the instalments add up to the total to the last unit. The deposit is the deal’s percentage of the total.',
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
    perLine: [LINE_NET],
    lists: [
      TAX_ROWS,
      {
        name: 'payments',
        label: 'Payment schedule',
        formula: 'SCHEDULE(total, tables.instalments)',
        columns: [figure('date', 'due_on', 'Due on', 'document.issue_date + days')],
      },
    ],
    document: [
      SUBTOTAL,
      TAX_TOTAL,
      TOTAL,
      amount('deposit', 'Deposit', 'total * (deal.deposit_percent ?? 0%)'),
      amount('after_deposit', 'After the deposit', 'total - deposit'),
    ],
    sums: [SUM_OF_LINES, SUM_OF_TAX, { column: 'payments.amount', figure: 'total' }],
  }),
};

/** What was invoiced before is deducted, and a retention held back. */
export const FINAL_INVOICE: Calculation = {
  id: 'final-invoice',
  label: 'Final invoice: billed to date deducted, retention held back',
  purpose:
    'The whole work, less what earlier invoices of the deal have billed, as the register has them, less a retention that is paid later.',
  sheet: dealSheet({
    perLine: [LINE_NET],
    lists: [
      TAX_ROWS,
      {
        name: 'earlier_invoices',
        label: 'Billed before',
        formula: 'REGISTERED("invoice")',
        columns: [amount('billed', 'Billed', 'item.payable ?? gross_total ?? 0')],
      },
    ],
    document: [
      SUBTOTAL,
      TAX_TOTAL,
      TOTAL,
      amount('prepaid', 'Billed to date', 'SUM(earlier_invoices.billed)', 'prepaid'),
      amount('retention', 'Retention', 'total * 5%'),
      amount('due', 'Due now', 'total - prepaid - retention'),
      amount('payable', 'Payable in all', 'total - prepaid', 'payable'),
      figure('date', 'retention_due', 'Retention due on', 'EDATE(document.issue_date, 12)'),
    ],
    sums: [SUM_OF_LINES, SUM_OF_TAX, { column: 'earlier_invoices.billed', figure: 'prepaid' }],
  }),
};

/** The payable amount to the nearest coin, the difference in a row of its own (BT-114). */
export const CASH_ROUNDING: Calculation = {
  id: 'cash-rounding',
  label: 'Cash rounding',
  purpose: 'The payable amount in Swiss francs to the nearest 0.05; the difference is a row of its own. Other currencies stay as they are.', // prettier-ignore
  sheet: dealSheet({
    perLine: [LINE_NET],
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
  purpose: 'Net days, end of month and working days from the day of issue, over a table of holidays; a day that falls on a free one moves to the next working day.', // prettier-ignore
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
      figure('date', 'due_working_days', 'Due, 10 working days', 'WORKDAY(document.issue_date, 10, tables.holidays.date)'), // prettier-ignore
      figure('date', 'discount_until', 'Cash discount until', 'WORKDAY(document.issue_date, 5, tables.holidays.date)'),
    ],
  }),
};
