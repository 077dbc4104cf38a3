import type { ComposedTable, TableRow } from '../../core/template/blocks/line-table';
import type { Run } from '../../core/template/composed';

/** How wide each character of a font is at most, in ems. */
export type FontWidths = Readonly<Record<string, number>>;

/** Rows of fewer letters than this are never taller than a page. */
const LONG_ROW = 1_400;
/** Letters stand nearer or further apart than their widths say, by less than this. */
const KERNING = 1.04;
/** A text that is narrower than this part of the widest, by its letters, is narrower on the page too. */
const NEAR_WIDEST = 0.85;

/**
 * A table as document.typ reads it, with what can be known of it beforehand, so that the typesetter need not try each cell to learn
 * how wide its column and how tall its row is: the texts among which the widest of a column as wide as its content is, and how wide the text
 * of each other column is at most. What cannot be foreseen is left out, and is then found by trying.
 */
export function setTable(table: ComposedTable, widths: FontWidths) {
  const rows = table.sections.flatMap((section) => section.rows);
  const columns = table.columns.map((column, x) => {
    const cells = rows.map((row) => row.cells[x]!);
    const widest = column.width === 'content' ? widestOf(cells, widths) : undefined;
    return { ...column, ...(widest && { widest }) };
  });
  const open = [...columns.keys()].filter((x) => columns[x]!.width !== 'content');
  const sections = table.sections.map((section) => ({
    ...section,
    rows: section.rows.map((row) => setRow(row, open, widths)),
  }));
  const carried = rows.map((row) => ({ runs: [{ kind: 'text' as const, text: row.carried ?? '' }] }));
  const carry = table.carry && { ...table.carry, widest: widestOf(carried, widths) ?? [] };
  return { ...table, columns, sections, ...(carry && { carry }) };
}

/** A row whose cells of running text alone are that text. `ems` are for the columns of another width. */
function setRow(row: TableRow, open: readonly number[], widths: FontWidths) {
  const letters = row.cells.flatMap(({ runs, detail = [] }) => [...runs, ...detail]).map(lettersIn);
  const cells = row.cells.map((cell) => (cell.picture || cell.detail ? cell : cell.runs));
  const ems = open.map((x) => {
    const { picture, runs, detail = [] } = row.cells[x]!;
    const [first, second] = [emsOf(runs, widths), emsOf(detail, widths)];
    return picture || first === undefined || second === undefined ? undefined : Math.max(first, second);
  });
  const isKnown = !ems.includes(undefined);
  return { ...row, cells, ...(sumOf(letters) > LONG_ROW && { long: true }), ...(isKnown && { ems }) };
}

const lettersIn = (run: Run) => (run.kind === 'text' ? run.text.length : 0);
const sumOf = (numbers: readonly number[]) => numbers.reduce((sum, each) => sum + each, 0);

/** The texts among which the widest of a column is; figures stand for one another. */
function widestOf(cells: readonly TableRow['cells'][number][], widths: FontWidths): string[] | undefined {
  const texts = new Map<string, number>();
  for (const { runs, picture, detail } of cells) {
    if (picture || detail || !runs.every(isPlain)) return undefined;
    const shape = runs
      .map(({ text }) => text)
      .join('')
      .replace(/\d/g, '0');
    if (texts.has(shape)) continue;
    const ems = emsOf(runs, widths);
    if (ems === undefined) return undefined;
    texts.set(shape, ems);
  }
  const most = Math.max(...texts.values());
  return [...texts].flatMap(([text, ems]) => (ems >= most * NEAR_WIDEST ? [text] : []));
}

const isPlain = (run: Run): run is Extract<Run, { kind: 'text' }> =>
  run.kind === 'text' && !run.bold && !run.italic && !run.fault;

/** How wide a line of text is at most, in ems; nothing where it may have other lines or letters that are not foreseen. */
function emsOf(runs: readonly Run[], widths: FontWidths): number | undefined {
  let ems = 0;
  for (const run of runs) {
    if (run.kind !== 'text' || run.fault) return undefined;
    for (const letter of run.text) {
      const width = widths[letter];
      if (width === undefined) return undefined;
      ems += width;
    }
  }
  return ems * KERNING;
}
