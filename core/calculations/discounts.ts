import {
  amount,
  dealSheet,
  figure,
  LINE_TAX,
  SUBTOTAL,
  SUM_OF_LINES,
  SUM_OF_TAX,
  TAX_ROWS,
  TAX_TOTAL,
  TOTAL,
  type Calculation,
} from './calculation';

const LINE_STEPS = [
  ...LINE_TAX,
  amount('list_value', 'List value', 'quantity * unit_price'),
  amount('after_percent', 'After the percentage', 'list_value * (1 - discount ?? 0%)'),
  amount('after_money', 'After all line discounts', 'after_percent - MIN(MAX(after_percent, 0), discount_amount ?? 0)'),
];

/** Percent, then money, each on what the one before left, never below zero; then the deal's own, spread over the lines. */
export const CHAINED_DISCOUNTS: Calculation = {
  id: 'chained-discounts',
  label: 'Discounts in percent and money, chained and capped',
  purpose:
    'On each line first the percentage, then the money, never below zero; a return or trade-in has its percentage, but no money off it. Then the discount of the whole order in percent and money on what is left, spread over the lines to the last unit.',
  sheet: dealSheet({
    perLine: [
      ...LINE_STEPS,
      amount(
        'deal_part',
        'Part of the whole discount',
        'PART(figures.deal_discount, lines[not optional], after_money) ?? 0',
      ),
      amount('net', 'Net', 'after_money - deal_part', 'line-net'),
    ],
    lists: [TAX_ROWS],
    document: [
      amount('list_total', 'List value', 'SUM(lines[not optional].list_value)', 'list-total'),
      amount('line_discounts', 'Discounts on lines', 'goods - list_total'),
      amount('discount_total', 'All discounts', 'subtotal - list_total', 'line-discounts'),
      amount('goods', 'After line discounts', 'SUM(lines[not optional].after_money)'),
      amount('deal_percent', 'Percentage off the whole', 'goods * (deal.discount_percent ?? 0%)'),
      amount(
        'deal_discount',
        'Discount on the whole',
        'IF(goods > 0, MIN(goods, deal_percent + (deal.discount_amount ?? 0)), 0)',
      ),
      SUBTOTAL,
      TAX_TOTAL,
      TOTAL,
    ],
    sums: [SUM_OF_LINES, SUM_OF_TAX, { column: 'lines[not optional].deal_part', figure: 'deal_discount' }],
  }),
};

/** A discount on each group of lines by its size, from a table. */
export const GROUP_DISCOUNTS: Calculation = {
  id: 'group-discounts',
  label: 'Discounts on groups, by a volume table',
  purpose:
    'Lines are grouped by section; the larger a group, the larger its discount, by a table of tiers. The discount is spread over the group’s lines to the last unit.',
  sheet: dealSheet({
    tables: [
      {
        name: 'group_discounts',
        label: 'Discounts on groups',
        columns: [
          { name: 'from', label: 'From', type: 'money' },
          { name: 'discount', label: 'Discount', type: 'percent' },
        ],
        rows: [
          ['0', '0'],
          ['5000', '0.02'],
          ['20000', '0.035'],
          ['50000', '0.05'],
        ],
      },
    ],
    perLine: [
      ...LINE_TAX,
      amount('line_value', 'Value', 'quantity * unit_price * (1 - discount ?? 0%)'),
      amount(
        'group_part',
        'Part of the group’s discount',
        'IF(optional, 0, PART(FIRST(sections[this in item.lines]).discount, FIRST(sections[this in item.lines]).lines, line_value))',
      ),
      amount('net', 'Net', 'line_value - group_part', 'line-net'),
    ],
    lists: [
      {
        name: 'sections',
        label: 'Groups',
        formula: 'GROUP(lines[not optional], section)',
        columns: [
          amount('group_value', 'Value', 'SUM(item.lines.line_value)'),
          figure(
            'percent',
            'rate',
            'Discount',
            'IF(group_value > 0, TIER(group_value, tables.group_discounts.from, tables.group_discounts.discount), 0%)',
          ),
          amount('discount', 'Discount', 'group_value * rate'),
          amount('after', 'After discount', 'group_value - discount'),
        ],
      },
      TAX_ROWS,
    ],
    document: [amount('group_discount', 'Discounts on groups', 'SUM(sections.discount)'), SUBTOTAL, TAX_TOTAL, TOTAL],
    sums: [
      SUM_OF_LINES,
      SUM_OF_TAX,
      { column: 'lines[not optional].group_part', figure: 'group_discount' },
      { column: 'sections.after', figure: 'subtotal' },
    ],
  }),
};
