import { LINES } from '../record/schema';
import { type DerivedList, type Figure, type FigureSheet } from './figure';

/** One formula of a figure sheet: of a figure, of a list, or of a column of a list's rows. */
export interface SheetFormula {
  /** `total`, `tax_rows`, or `lines.net` and `tax_rows.base` for what every item has. */
  key: string;
  formula: string;
  /** The list whose item is in scope: `lines`, or a derived list's name. */
  list?: string;
  figure?: Figure;
  derived?: DerivedList;
}

/** The key of a figure: its name, behind the list's if it is a figure of the list's items. */
export function figureKey(name: string, list?: string): string {
  return list === undefined ? name : `${list}.${name}`;
}

/** Every figure and list of a sheet with its formula: lines first, then lists with their columns, then the document. */
export function sheetFormulas(sheet: FigureSheet): SheetFormula[] {
  const ofItems = (figures: readonly Figure[], list: string) =>
    figures.map((figure) => ({ key: figureKey(figure.name, list), formula: figure.formula, list, figure }));
  return [
    ...ofItems(sheet.perLine, LINES),
    ...sheet.lists.flatMap((derived) => [
      { key: derived.name, formula: derived.formula, derived },
      ...ofItems(derived.columns, derived.name),
    ]),
    ...sheet.document.map((figure) => ({ key: figure.name, formula: figure.formula, figure })),
  ];
}

/** The same sheet with every formula changed; `key` is absent for those that belong to no figure. */
export function mapSheetFormulas(
  sheet: FigureSheet,
  change: (formula: string, list?: string, key?: string) => string,
): FigureSheet {
  const figures = (all: readonly Figure[], list?: string) =>
    all.map((figure) => ({ ...figure, formula: change(figure.formula, list, figureKey(figure.name, list)) }));
  return {
    ...sheet,
    currency: change(sheet.currency),
    perLine: figures(sheet.perLine, LINES),
    lists: sheet.lists.map((derived) => ({
      ...derived,
      formula: change(derived.formula, undefined, derived.name),
      columns: figures(derived.columns, derived.name),
    })),
    document: figures(sheet.document),
    sums: sheet.sums.map((sum) => ({ ...sum, column: change(sum.column) })),
  };
}
