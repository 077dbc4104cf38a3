import { amount, dealSheet, figure, type Calculation } from './calculation';

/** Charges by month and by year beside those that come once. */
export const RECURRING: Calculation = {
  id: 'recurring',
  label: 'Recurring charges, terms and contract value',
  purpose:
    'Monthly and yearly lines apart from those billed once; each over its term. Total contract value, yearly value, and a first month charged by its days.',
  sheet: dealSheet({
    perLine: [
      amount('net', 'Net per period', 'quantity * unit_price * (1 - discount ?? 0%)', 'line-net'),
      figure(
        'number',
        'periods',
        'Periods',
        'SWITCH(billing, "monthly", term_months ?? 12, "yearly", (term_months ?? 12) / 12, 1)',
      ),
      amount('contract_value', 'Over the term', 'net * periods'),
      amount('yearly_value', 'In a year', 'SWITCH(billing, "monthly", net * 12, "yearly", net, 0)'),
      amount('first_charge', 'First charge', 'IF(billing = "monthly", net * figures.first_month_share, net)'),
    ],
    document: [
      figure('date', 'starts_on', 'Starts on', 'deal.wanted_by ?? document.issue_date'),
      figure(
        'number',
        'first_month_share',
        'Share of the first month',
        '(DAYS(EOMONTH(starts_on, 0), starts_on) + 1) / DAY(EOMONTH(starts_on, 0))',
      ),
      amount('one_off', 'Once', 'SUM(lines[billing = "once" and not optional].net)'),
      amount('monthly', 'Each month', 'SUM(lines[billing = "monthly" and not optional].net)'),
      amount('yearly', 'Each year', 'SUM(lines[billing = "yearly" and not optional].net)'),
      amount('contract_total', 'Total contract value', 'SUM(lines[not optional].contract_value)'),
      amount('yearly_total', 'Yearly value', 'SUM(lines[not optional].yearly_value)'),
      amount('first_invoice', 'First invoice', 'SUM(lines[not optional].first_charge)'),
      amount('optional_yearly', 'Optional, each year', 'SUM(lines[optional].yearly_value)'),
    ],
    sums: [
      { column: 'lines[not optional].contract_value', figure: 'contract_total' },
      { column: 'lines[not optional].first_charge', figure: 'first_invoice' },
    ],
  }),
};
