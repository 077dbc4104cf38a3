import type { RoleAmount, Roles, RoleValues } from '../formula/roles';
import type { Figure, FigureSheet } from './figure';
import { LINES } from '../record/schema';
import type { Row } from '../formula/row';
import type { Sheet } from './sheet';
import { rowsIn, type Value } from '../formula/value';

/** Reads the figures with roles of an evaluated sheet. What has failed is left out: it is a finding already. */
export function rolesOf(sheet: Sheet): Roles {
  const { document, lists, perLine } = sheet.input.sheet;
  const valued = (figures: readonly Figure[], valueOf: (figure: Figure) => Value): RoleValues =>
    Object.fromEntries(
      figures.flatMap((figure) => {
        const value = figure.role && roleValue(valueOf(figure));
        return value ? [[figure.role, value]] : [];
      }),
    );
  const rowsOf = (list: string, figures: readonly Figure[], rows: readonly Row[]) =>
    rows.map((row) => ({ list, values: valued(figures, (figure) => sheet.itemFigure(row, figure).value) }));
  const withRole = (figures: readonly Figure[]) => figures.filter(({ role }) => role);
  const ofLines = withRole(perLine);
  return {
    document: valued(document, ({ name }) => sheet.figure(name).value),
    rows: [
      ...(ofLines.length > 0 ? rowsOf(LINES, ofLines, taxedLines(sheet, lists)) : []),
      ...lists.flatMap(({ name, columns }) => {
        const figures = withRole(columns);
        return figures.length > 0 ? rowsOf(name, figures, rowsIn(sheet.figure(name).value)) : [];
      }),
    ],
  };
}

/** The document's own lines: those of its tax rows where these are made of lines, else all there are. */
function taxedLines(sheet: Sheet, lists: FigureSheet['lists']): Row[] {
  const taxRows = lists.filter(({ columns }) => columns.some(({ role }) => role === 'tax-base'));
  const lines = taxRows
    .flatMap(({ name }) => rowsIn(sheet.figure(name).value))
    .flatMap((row) => (row.has(LINES) ? rowsIn(row.value(LINES)) : []))
    .filter(({ list }) => list === LINES);
  return taxRows.length > 0 ? lines : rowsIn(sheet.evaluate(LINES, LINES).value);
}

function roleValue(value: Value): RoleAmount | string | undefined {
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
