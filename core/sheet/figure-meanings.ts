import type { MeaningAmount, Meanings, MeaningValues } from '../formula/meanings';
import type { Figure, FigureSheet } from './figure';
import { LINES } from '../record/schema';
import type { Row } from '../formula/row';
import type { Sheet } from './sheet';
import { rowsIn, type Value } from '../formula/value';

/** Reads the figures with meanings of an evaluated sheet. What has failed is left out: it is a finding already. */
export function meaningsOf(sheet: Sheet): Meanings {
  const { document, lists, perLine } = sheet.input.sheet;
  const valued = (figures: readonly Figure[], valueOf: (figure: Figure) => Value): MeaningValues =>
    Object.fromEntries(
      figures.flatMap((figure) => {
        const value = figure.meaning && meaningValue(valueOf(figure));
        return value ? [[figure.meaning, value]] : [];
      }),
    );
  const rowsOf = (list: string, figures: readonly Figure[], rows: readonly Row[]) =>
    rows.map((row) => ({ list, values: valued(figures, (figure) => sheet.itemFigure(row, figure).value) }));
  const withMeaning = (figures: readonly Figure[]) => figures.filter(({ meaning }) => meaning);
  const ofLines = withMeaning(perLine);
  return {
    document: valued(document, ({ name }) => sheet.figure(name).value),
    rows: [
      ...(ofLines.length > 0 ? rowsOf(LINES, ofLines, taxedLines(sheet, lists)) : []),
      ...lists.flatMap(({ name, columns }) => {
        const figures = withMeaning(columns);
        return figures.length > 0 ? rowsOf(name, figures, rowsIn(sheet.figure(name).value)) : [];
      }),
    ],
  };
}

/** The document's own lines: those of its tax rows where these are made of lines, else all there are. */
function taxedLines(sheet: Sheet, lists: FigureSheet['lists']): Row[] {
  const taxRows = lists.filter(({ columns }) => columns.some(({ meaning }) => meaning === 'tax-base'));
  const lines = taxRows
    .flatMap(({ name }) => rowsIn(sheet.figure(name).value))
    .flatMap((row) => (row.has(LINES) ? rowsIn(row.value(LINES)) : []))
    .filter(({ list }) => list === LINES);
  return taxRows.length > 0 ? lines : rowsIn(sheet.evaluate(LINES, LINES).value);
}

function meaningValue(value: Value): MeaningAmount | string | undefined {
  switch (value.type) {
    case 'money':
      return { value: value.value.toFixed(), currency: value.currency };
    case 'text':
      return value.value;
    case 'percent':
      return value.value.toFixed();
    default:
      return undefined;
  }
}
