import type { Meaning } from '../../formula/meanings';
import { LINES, type RecordSchema } from '../../record/schema';
import type { FigureSheet } from '../../sheet/figure';
import type { SheetFormula } from '../../sheet/formulas';
import type { Totals } from '../blocks/totals';
import type { Template } from '../template';
import { ReadyMade, type Found } from './ready-made';

type Holder = Pick<Template, 'sheet' | 'record'>;
type TotalsRow = Totals['attrs']['rows'][number];

/** The figures that totals are made of, by what they are, in the order in which they are printed. */
const OFFERS = [
  { id: 'discounts', label: 'List value and discounts', wants: means('line-discounts'), isUsual: false },
  { id: 'subtotal', label: 'Subtotal', wants: means('sum-of-lines'), isUsual: true },
  { id: 'tax', label: 'Tax by category', wants: means('tax-amount'), isUsual: true },
  { id: 'total', label: 'Total', wants: means('gross-total'), isUsual: true },
  { id: 'deposit', label: 'Deposit', wants: called('deposit'), isUsual: false },
  {
    id: 'due',
    label: 'Due after the deposit',
    wants: either(means('payable'), called('after_deposit')),
    isUsual: false,
  },
] as const;
export type TotalId = (typeof OFFERS)[number]['id'];

type Wants = (each: SheetFormula) => boolean;
function means(meaning: Meaning): Wants {
  return ({ figure }) => figure?.meaning === meaning;
}
function called(name: string): Wants {
  return ({ key }) => key === name;
}
function either(one: Wants, other: Wants): Wants {
  return (each) => one(each) || other(each);
}

/** A figure that totals can have. */
export interface TotalOffer {
  id: TotalId;
  label: string;
  /** Whether the sheet has it already; it is made from a ready-made calculation otherwise. */
  isThere: boolean;
  /** Whether it is usually printed. */
  isUsual: boolean;
}

/** The totals that a template can have for its records. */
export function totalsOffered({ sheet, record }: Holder, schema: RecordSchema): TotalOffer[] {
  const ready = new ReadyMade(record, schema);
  return OFFERS.flatMap(({ id, label, wants, isUsual }) => {
    const found = ready.find(sheet, wants);
    return found ? [{ id, label, isThere: found.sheet === sheet, isUsual }] : [];
  });
}

/** Totals of some figures, with a sheet that has them. */
export function totalsOf(
  { sheet, record }: Holder,
  schema: RecordSchema,
  wanted: readonly TotalId[],
  newId: () => string,
): { sheet: FigureSheet; block: Totals } {
  const ready = new ReadyMade(record, schema);
  let made = sheet;
  const find = (wants: Wants): Found | undefined => {
    const found = ready.find(made, wants);
    made = found?.sheet ?? made;
    return found;
  };
  const rows = OFFERS.filter(({ id }) => wanted.includes(id)).flatMap(({ id, wants }): TotalsRow[] => {
    const found = find(wants);
    if (!found) return [];
    if (id === 'discounts') return discountRows(found, find(means('list-total')), newId);
    if (id === 'tax') return [taxRow(found, made, newId)];
    const isLast = id === 'total';
    return [{ id: newId(), label: found.label, formula: found.key, ...(isLast && { emphasis: 'total' }) }];
  });
  return { sheet: made, block: { type: 'totals', attrs: { id: newId(), rows } } };
}

/** The list value and what is taken off it, where anything is. */
function discountRows(discounts: Found, list: Found | undefined, newId: () => string): TotalsRow[] {
  const when = `${discounts.key} <> 0`;
  return [list, discounts].flatMap((each) =>
    each ? [{ id: newId(), label: each.label, formula: each.key, when }] : [],
  );
}

/** A row for each category of tax: its rate, and what it is on. */
function taxRow({ key }: Found, { lists, document }: FigureSheet, newId: () => string): TotalsRow {
  const [list, amount] = key.split('.');
  const columns = lists.find(({ name }) => name === list)?.columns ?? [];
  const rate = columns.find(({ meaning }) => meaning === 'tax-rate')?.name;
  const base = columns.find(({ meaning }) => meaning === 'tax-base')?.name;
  const word = document.find(({ meaning }) => meaning === 'tax-total')?.label ?? 'Tax';
  const label = [word, ...(rate ? [`=[item.${rate}]`] : []), ...(base ? [`on =[item.${base}]`] : [])].join(' ');
  return { id: newId(), label, formula: `item.${amount}`, each: list! };
}

export type Schedule = 'tax summary' | 'payment schedule';

/** Lists that tables are made of as often as of lines: the summary of tax and the schedule of payments. */
export function scheduleOf(
  { sheet, record }: Holder,
  schema: RecordSchema,
  what: Schedule,
): { sheet: FigureSheet; list: string } | undefined {
  const ready = new ReadyMade(record, schema);
  const found = ready.find(
    sheet,
    what === 'tax summary'
      ? ({ figure, list }) => figure?.meaning === 'tax-amount' && list !== undefined && list !== LINES
      : ({ derived }) => derived !== undefined && derived.formula.startsWith('SCHEDULE('),
  );
  return found && { sheet: found.sheet, list: found.key.split('.')[0]! };
}
