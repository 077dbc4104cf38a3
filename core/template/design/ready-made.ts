import { CALCULATIONS, takeCalculation, type Calculation } from '../../calculations';
import { LINES, type RecordSchema } from '../../record/schema';
import { checkSheet } from '../../sheet/check-sheet';
import type { FigureSheet } from '../../sheet/figure';
import { sheetFormulas, type SheetFormula } from '../../sheet/formulas';
import { checkContext } from '../check';
import type { Template } from '../template';

type Holder = Pick<Template, 'sheet' | 'record'>;

/** A figure or list that there is, and the sheet that has it. */
export interface Found {
  /** `total`, or `lines.net` and `tax_rows.base` for columns. */
  key: string;
  label: string;
  sheet: FigureSheet;
}

/** The ready-made calculations that can be computed for a template's records: what a sheet lacks is taken from them. */
export class ReadyMade {
  readonly #fitting = new Map<Calculation, ReadonlyMap<string, readonly string[]> | undefined>();

  constructor(
    readonly record: Template['record'],
    readonly schema: RecordSchema,
  ) {}

  /** The figure of a sheet that is wanted; or the sheet with it, taken from a calculation with all that it is computed from. */
  find(sheet: FigureSheet, isWanted: (each: SheetFormula) => boolean): Found | undefined {
    const own = sheetFormulas(sheet).find(isWanted);
    if (own) return { key: own.key, label: labelOf(own), sheet };
    for (const calculation of CALCULATIONS) {
      const wanted = sheetFormulas(calculation.sheet).find(isWanted);
      const uses = wanted && this.#usesIn(calculation);
      if (wanted && uses)
        return { key: wanted.key, label: labelOf(wanted), sheet: withAll(sheet, calculation, wanted.key, uses) };
    }
    return undefined;
  }

  /** What each figure of a calculation is computed from; undefined where it cannot be computed for such records. */
  #usesIn(calculation: Calculation): ReadonlyMap<string, readonly string[]> | undefined {
    if (!this.#fitting.has(calculation))
      this.#fitting.set(calculation, usesOf({ ...calculation, record: this.record }, this.schema));
    return this.#fitting.get(calculation);
  }
}

const labelOf = ({ figure, derived }: SheetFormula): string => (figure ?? derived)!.label;

/** What the figures of a sheet are computed from, where all of it is right for the record. */
function usesOf(holder: Holder, schema: RecordSchema): ReadonlyMap<string, readonly string[]> | undefined {
  const { figures, problems } = checkSheet(checkContext(holder, schema));
  const all = Object.values(figures);
  const isRight = problems.length === 0 && all.every((each) => each.diagnostics.length + each.problems.length === 0);
  return isRight ? new Map(all.map(({ key, uses }) => [key, uses])) : undefined;
}

/** A sheet with a calculation's figure, and with all of the same calculation that it needs and the sheet lacks. */
function withAll(
  sheet: FigureSheet,
  calculation: Calculation,
  key: string,
  uses: ReadonlyMap<string, readonly string[]>,
): FigureSheet {
  const own = new Set(sheetFormulas(sheet).map((each) => each.key));
  const all = sheetFormulas(calculation.sheet);
  const needed = new Set<string>();
  const need = (wanted: string): void => {
    if (own.has(wanted) || needed.has(wanted)) return;
    needed.add(wanted);
    const [list] = wanted.split('.');
    if (list !== wanted && list !== LINES) need(list!);
    uses.get(wanted)?.forEach(need);
    // Rows say what they are by the standard, all of it; a list that is wanted itself comes with all of its columns.
    for (const each of all) if (each.list === wanted && (each.figure?.meaning ?? wanted === key)) need(each.key);
  };
  need(key);
  const ofList = <Named extends { name: string }>(figures: readonly Named[], list?: string) =>
    figures.filter(({ name }) => needed.has(list === undefined ? name : `${list}.${name}`));
  const { perLine, lists, document, sums, tables = [] } = calculation.sheet;
  const has = (each: string) => own.has(each) || needed.has(each);
  const part: FigureSheet = {
    ...calculation.sheet,
    perLine: ofList(perLine, LINES),
    lists: lists
      .filter(({ name, columns }) => needed.has(name) || columns.some((each) => needed.has(`${name}.${each.name}`)))
      .map((list) => ({ ...list, columns: ofList(list.columns, list.name) })),
    document: ofList(document),
    sums: sums.filter(
      ({ figure, column }) =>
        has(figure) && (needed.has(figure) || needed.has(keyOfColumn(column))) && has(keyOfColumn(column)),
    ),
    tables: tables.filter(({ name }) =>
      all.some((each) => needed.has(each.key) && each.formula.includes(`tables.${name}`)),
    ),
  };
  return takeCalculation(sheet, { ...calculation, sheet: part }).sheet;
}

/** The key of the column that a sum adds up: `lines.net` for `lines[not optional].net`. */
const keyOfColumn = (column: string): string => column.replaceAll(/\[.*\]/g, '');
