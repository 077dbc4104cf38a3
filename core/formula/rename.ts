import { Checker, type CheckContext } from './check';
import { LINES, type FigureSheet } from './figure';
import { mapSheetFormulas } from './formulas';

/** The formula with every use of one figure under its new name; all else stays as it was typed. */
export function renameInFormula(
  formula: string,
  uses: readonly { key: string; from: number; to: number }[],
  key: string,
  name: string,
): string {
  // prettier-ignore
  return uses
    .filter((use) => use.key === key)
    .sort((a, b) => b.from - a.from)
    .reduce((text, { from, to }) => text.slice(0, from) + name + text.slice(to), formula);
}

/** The sheet with a figure or list under a new name, and every use of it following. */
export function renameFigure(context: CheckContext, key: string, name: string): FigureSheet {
  const checker = new Checker(context);
  const { sheet } = context;
  const follow = (formula: string, list?: string) => {
    const item = list === undefined ? undefined : list === LINES ? checker.lines : checker.itemOf(list);
    return renameInFormula(formula, checker.formula(formula, item).uses, key, name);
  };
  const followed = mapSheetFormulas(sheet, follow);
  const [list, column] = key.includes('.') ? key.split('.') : [undefined, key];
  const named = <Named extends { name: string }>(all: Named[]): Named[] =>
    all.map((each) => (each.name === column ? { ...each, name } : each));
  if (list === LINES) return { ...followed, perLine: named(followed.perLine) };
  if (list !== undefined) {
    const lists = followed.lists.map((each) => (each.name === list ? { ...each, columns: named(each.columns) } : each));
    return { ...followed, lists };
  }
  return {
    ...followed,
    lists: named(followed.lists),
    document: named(followed.document),
    sums: followed.sums.map((sum) => (sum.figure === key ? { ...sum, figure: name } : sum)),
  };
}
