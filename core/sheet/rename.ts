import { LINES } from '../record/schema';
import { Checker, type CheckContext } from './check';
import { type FigureSheet } from './figure';
import { mapSheetFormulas } from './formulas';

/** The formula with every use of one figure under its new name; all else stays as it was typed. */
export function renameInFormula(
  formula: string,
  uses: readonly { key: string; from: number; to: number }[],
  key: string,
  name: string,
): string {
  return uses
    .filter((use) => use.key === key)
    .sort((a, b) => b.from - a.from)
    .reduce((text, { from, to }) => text.slice(0, from) + name + text.slice(to), formula);
}

/** The sheet with a figure or list under a new name, and every use of it following. */
export function renameFigure(context: CheckContext, key: string, name: string): FigureSheet {
  const checker = new Checker(context);
  const follow = (formula: string, list?: string) =>
    renameInFormula(formula, checker.formula(formula, checker.itemOf(list)).uses, key, name);
  return renamed(mapSheetFormulas(context.sheet, follow), key, name);
}

/** The sheet with a figure or list under a new name, its formulas as they are. */
export function renamed(sheet: FigureSheet, key: string, name: string): FigureSheet {
  const [list, column] = key.includes('.') ? key.split('.') : [undefined, key];
  const named = <Named extends { name: string }>(all: Named[]): Named[] =>
    all.map((each) => (each.name === column ? { ...each, name } : each));
  if (list === LINES) return { ...sheet, perLine: named(sheet.perLine) };
  if (list !== undefined) {
    const lists = sheet.lists.map((each) => (each.name === list ? { ...each, columns: named(each.columns) } : each));
    return { ...sheet, lists };
  }
  return {
    ...sheet,
    lists: named(sheet.lists),
    document: named(sheet.document),
    sums: sheet.sums.map((sum) => (sum.figure === key ? { ...sum, figure: name } : sum)),
  };
}
