import { LINES } from '../record/schema';
import { figureKey } from '../sheet/formulas';
import { type DerivedList, type Figure, type FigureSheet } from '../sheet/figure';
import type { Calculation } from './calculation';
import { CHAINED_DISCOUNTS, GROUP_DISCOUNTS } from './discounts';
import {
  ALLOWANCES_AND_CHARGES,
  CASH_ROUNDING,
  CREDIT_NOTE,
  DEPOSIT_INVOICE,
  DUE_DATES,
  FINAL_INVOICE,
  INSTALMENTS,
} from './invoicing';
import { BUNDLES, MARGIN, NET_PRICES, TAX_INCLUDED, TAX_PER_LINE } from './prices';
import { RECURRING } from './recurring';

export type { Calculation } from './calculation';

/** Every ready-made figure sheet. */
export const CALCULATIONS: readonly Calculation[] = [
  NET_PRICES, TAX_PER_LINE, TAX_INCLUDED, CHAINED_DISCOUNTS, GROUP_DISCOUNTS, ALLOWANCES_AND_CHARGES, INSTALMENTS,
  DEPOSIT_INVOICE, FINAL_INVOICE, CREDIT_NOTE, RECURRING, BUNDLES, MARGIN, CASH_ROUNDING, DUE_DATES,
]; // prettier-ignore

/** A sheet that has taken a calculation in, and the keys of the figures that it replaced. */
export interface Taken {
  sheet: FigureSheet;
  added: string[];
  replaced: string[];
}

/** Takes a calculation into a sheet: what has a name of the calculation's gives way to it, all else stays. */
export function takeCalculation(sheet: FigureSheet, { sheet: taken }: Calculation): Taken {
  const added: string[] = [];
  const replaced: string[] = [];
  const figures = (own: readonly Figure[], others: readonly Figure[], list?: string) =>
    merged(own, others, (figure, known) => {
      if (!known) added.push(figureKey(figure.name, list));
      else if (known.formula !== figure.formula || known.type !== figure.type)
        replaced.push(figureKey(figure.name, list));
      return figure;
    });
  const lists = merged(sheet.lists, taken.lists, (list: DerivedList, known): DerivedList => {
    if (!known) added.push(list.name);
    else if (known.formula !== list.formula) replaced.push(list.name);
    return { ...list, columns: figures(known?.columns ?? [], list.columns, list.name) };
  });
  const sums = [...sheet.sums, ...taken.sums].filter(
    (sum, at, all) => all.findIndex((each) => each.column === sum.column && each.figure === sum.figure) === at,
  );
  const tables = merged(sheet.tables ?? [], taken.tables ?? [], (table, known) => known ?? table);
  const result: FigureSheet = {
    ...sheet,
    perLine: figures(sheet.perLine, taken.perLine, LINES),
    lists,
    document: figures(sheet.document, taken.document),
    sums,
  };
  return { sheet: tables.length > 0 ? { ...result, tables } : result, added, replaced };
}

/** Those of `own`, each replaced by the one of the same name of `others`, and then the further ones of `others`. */
function merged<Named extends { name: string }>(
  own: readonly Named[],
  others: readonly Named[],
  choose: (other: Named, known: Named | undefined) => Named,
): Named[] {
  const byName = new Map(own.map((each) => [each.name, each]));
  for (const other of others) byName.set(other.name, choose(other, byName.get(other.name)));
  return [...byName.values()];
}
