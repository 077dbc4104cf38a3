import { LINES } from '../record/schema';
import type { Checker, Diagnostic } from './check';
import { checkSheet } from './check-sheet';
import type { Cell } from './cell';
import { sheetFormulas } from './formulas';
import type { Row } from '../formula/row';
import type { Sheet } from './sheet';
import { typeInWords } from '../formula/type';
import { formatValue, rowsIn, type Value } from '../formula/value';

/** A value as a screen shows it. */
export interface ShownValue {
  text: string;
  failed: boolean;
}

/** A place outside of the sheet: in words, with the block where it is one. */
export interface PagePlace {
  words: string;
  block?: string;
}

/** One figure or list of a sheet: what is wrong with it, what it hangs together with, and its value for a record. */
export interface FigureView {
  key: string;
  diagnostics: Diagnostic[];
  problems: string[];
  uses: string[];
  usedBy: string[];
  /** Places on the page that use it. */
  places: PagePlace[];
  /** Its value; for a figure of items, one for each row of its list. */
  values: ShownValue[];
}

/** A figure sheet over one record, all of it as plain data for a screen. */
export interface SheetView {
  figures: Record<string, FigureView>;
  /** Rows of the lines and of each derived list: what they are called. */
  rows: Record<string, string[]>;
  problems: string[];
}

/**
 * Everything that a screen of a figure sheet shows. `places`: where the page uses each figure, by the figure's key.
 */
export function sheetView(
  checker: Checker,
  places: Readonly<Record<string, readonly PagePlace[]>>,
  sheet: Sheet,
  locale: string,
): SheetView {
  const { context } = checker;
  const checked = checkSheet(context, checker);
  const rows = new Map([LINES, ...sheet.world.lists.keys()].map((list) => [list, rowsOf(sheet, list)]));
  const figures: Record<string, FigureView> = {};
  for (const { key, list, figure, derived } of sheetFormulas(context.sheet)) {
    const cells = cellsOf(list === undefined ? undefined : (rows.get(list) ?? []), sheet, figure, derived?.name);
    figures[key] = {
      ...checked.figures[key]!,
      places: [...(places[key] ?? [])],
      values: cells.map((cell) => shown(cell.value, locale)),
    };
  }
  const titles = [...rows].map(([name, all]) => [name, all.map((row) => row.place ?? row.title)] as const);
  return { figures, rows: Object.fromEntries(titles), problems: checked.problems };
}

/** What a formula gives while it is typed: its mistakes, its type, and its value for the record. */
export interface FormulaState {
  diagnostics: Diagnostic[];
  type: string;
  value: ShownValue | null;
}

/** A formula that is not in the sheet yet, checked and computed; `list` and `row` say for which item. */
export function formulaState(
  source: string,
  checker: Checker,
  sheet: Sheet,
  locale: string,
  list?: string,
  row = 0,
): FormulaState {
  const item = checker.itemOf(list);
  const { diagnostics, type } = checker.formula(source, item);
  const rows = list === undefined ? [] : rowsOf(sheet, list);
  const computable = diagnostics.length === 0 && (list === undefined || rows.length > 0);
  const value = computable ? sheet.evaluate('typed', source, rows[Math.min(row, rows.length - 1)]).value : undefined;
  return { diagnostics, type: typeInWords(type), value: value ? shown(value, locale) : null };
}

/** The cell of a figure, for the row of its list where it is a figure of items. */
export function cellAt(sheet: Sheet, key: string, row: number): Cell | undefined {
  const found = sheetFormulas(sheet.input.sheet).find((each) => each.key === key);
  if (!found) return undefined;
  const rows = found.list === undefined ? undefined : rowsOf(sheet, found.list);
  return cellsOf(rows, sheet, found.figure, found.derived?.name)[rows ? Math.min(row, rows.length - 1) : 0];
}

type SheetFigure = ReturnType<typeof sheetFormulas>[number]['figure'];

function cellsOf(
  rows: readonly Row[] | undefined,
  sheet: Sheet,
  figure: SheetFigure,
  derived: string | undefined,
): Cell[] {
  if (rows && figure) return rows.map((row) => sheet.itemFigure(row, figure));
  return [sheet.figure(figure?.name ?? derived!)];
}

/** The rows of the lines, or of a derived list. */
function rowsOf(sheet: Sheet, list: string): Row[] {
  if (list !== LINES) return rowsIn(sheet.figure(list).value);
  return sheet.world.hasLines ? rowsIn(sheet.evaluate(LINES, LINES).value) : [];
}

function shown(value: Value, locale: string): ShownValue {
  if (value.type === 'error') return { text: value.message, failed: true };
  if (value.type === 'blank') return { text: 'blank', failed: false };
  if (value.type !== 'list') return { text: formatValue(value, locale), failed: false };
  const count = value.items.length;
  return { text: `${count} ${count === 1 ? 'row' : 'rows'}`, failed: false };
}
