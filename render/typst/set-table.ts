import type { ComposedTable, TableRow } from '../../core/template/blocks/line-table';
import type { Run } from '../../core/template/composed';
import { hasKeptWords, type LineRun, type RoomRun } from './set-runs';

/** How wide each character of a font is at most, in ems. */
export type FontWidths = Readonly<Record<string, number>>;

/** Rows of fewer letters than this are never taller than a page. */
const LONG_ROW = 1_400;
/** Letters stand nearer or further apart than their widths say, by less than this. */
const KERNING = 1.04;
/** A text that is narrower than this part of the widest, by its letters, is narrower on the page too. */
const NEAR_WIDEST = 0.85;
/** Words that are narrower than this part of their column are never broken. */
const SHORT_WORD = 0.5;
/** Texts that are narrower than this part of their column are on one line. */
const ONE_LINE = 0.8;
/** A letter, and the room between two columns, about, in ems. */
const LETTER = 0.55;
const GAP = 1;

/** What a table is set with. */
export interface TableSetting {
  letters: FontWidths;
  figures: FontWidths;
  /** What numbers have before their decimals. */
  decimal: string;
  /** Across the page between its margins, in ems. */
  room: number;
}

/** Runs with the room that lines numbers up. */
type CellRuns = (Run | RoomRun)[];
type SetCell = Omit<TableRow['cells'][number], 'runs'> & { runs: CellRuns };

/**
 * A table as document.typ reads it. Numbers of a column get room after them, so that their decimal signs stand below one another. What
 * can be known of the table beforehand is said, so that the typesetter need not try each cell to learn
 * how wide its column and how tall its row is: the texts among which the widest of a column as wide as its content is, and how wide the text
 * of each other column is at most. What cannot be foreseen is left out, and is then found by trying.
 */
export function setTable(table: ComposedTable, setting: TableSetting) {
  const { letters: widths, room } = setting;
  const aligned = lineUp(table, setting);
  const rows = aligned.flatMap((section) => section.rows);
  const columns = table.columns.map((column, x) => {
    const cells = rows.map((row) => row.cells[x]!);
    const widest = column.width === 'content' ? widestOf(cells, widths) : undefined;
    return { ...column, ...(widest && { widest }) };
  });
  const open = [...columns.keys()].filter((x) => columns[x]!.width !== 'content');
  const words = {
    columns: [...columns.keys()].filter((x) => columns[x]!.width === 'rest' && columns[x]!.align === 'start'),
    room: restOf(table, room) / LETTER,
  };
  const sections = aligned.map((section) => ({
    ...section,
    rows: section.rows.map((row) => setRow(row, open, words, widths)),
  }));
  const carried = rows.map((row) => ({ runs: [{ kind: 'text' as const, text: row.carried ?? '' }] }));
  const carry = table.carry && { ...table.carry, widest: widestOf(carried, widths) ?? [] };
  return { ...table, columns, sections, ...(carry && { carry }) };
}

/** The sections of a table, the numbers of each column with room for the decimals that another one has. */
function lineUp({ columns, sections }: ComposedTable, { decimal, figures }: TableSetting) {
  const numeric = [...columns.keys()].filter((x) => columns[x]!.numbers);
  const most = columns.map(() => 0);
  for (const { rows } of sections)
    for (const { cells } of rows)
      for (const x of numeric) most[x] = Math.max(most[x]!, decimalsOf(cells[x]!.runs, decimal));
  const withRoom = (runs: Run[], x: number): CellRuns => {
    const own = decimalsOf(runs, decimal);
    const missing = most[x]! - own;
    if (missing <= 0 || runs.length === 0) return runs;
    const sign = own === 0 ? decimal : '';
    const ems = (sign === '' ? 0 : (figures[sign] ?? figures['.'] ?? 0)) + missing * (figures['0'] ?? LETTER);
    return [...runs, { kind: 'room', text: sign + '0'.repeat(missing), ems }];
  };
  const last = columns.length - 1;
  return sections.map(({ rows, subtotal, ...section }) => ({
    ...section,
    ...(subtotal && { subtotal: { ...subtotal, value: withRoom(subtotal.value, last) } }),
    rows: rows.map((row) => ({
      ...row,
      cells: row.cells.map((cell, x): SetCell => (most[x] ? { ...cell, runs: withRoom(cell.runs, x) } : cell)),
    })),
  }));
}

/** How many decimals a printed number has; none for any other text. */
function decimalsOf([run]: Run[], decimal: string): number {
  if (run?.kind !== 'text') return 0;
  const from = run.text.lastIndexOf(decimal) + 1;
  return from === 0 ? 0 : DIGITS.exec(run.text.slice(from))![0].length;
}
const DIGITS = /^\p{Nd}*/u;

/** How much of a line is about left to each column that takes the rest, in ems. */
function restOf({ columns, sections }: ComposedTable, room: number): number {
  const rows = sections.flatMap((section) => section.rows);
  const taken = columns.map(({ width, heading }, x) => {
    if (width === 'rest') return 0;
    if (width !== 'content') return width * room;
    const most = rows.reduce((found, { cells }) => Math.max(found, lettersOf(cells[x]!.runs)), lettersOf(heading));
    return most * LETTER;
  });
  const parts = columns.filter(({ width }) => width === 'rest').length;
  return (room - sumOf(taken) - columns.length * GAP) / Math.max(parts, 1);
}

/** The columns of running text, and how many letters a line of them has, about. */
interface Words {
  columns: readonly number[];
  room: number;
}

/** A row whose cells of running text alone are that text. `ems` are for the columns of another width. */
function setRow(
  row: Omit<TableRow, 'cells'> & { cells: SetCell[] },
  open: readonly number[],
  words: Words,
  widths: FontWidths,
) {
  const letters = row.cells.reduce((sum, { runs, detail = [] }) => sum + lettersOf(runs) + lettersOf(detail), 0);
  const inOneLine = (runs: CellRuns, x: number): (LineRun | RoomRun)[] =>
    open.includes(x) && lettersOf(runs) > words.room * ONE_LINE ? runs : runs.map(kept);
  const cells = row.cells.map((cell, x) => {
    const runs = inOneLine(cell.runs, x);
    return cell.picture || cell.detail
      ? { ...cell, runs, ...(cell.detail && { detail: inOneLine(cell.detail, x) }) }
      : runs;
  });
  const ems = open.map((x) => {
    const { picture, runs, detail = [] } = row.cells[x]!;
    const [first, second] = [emsOf(runs, widths), emsOf(detail, widths)];
    return picture || first === undefined || second === undefined ? undefined : Math.max(first, second);
  });
  const isKnown = !ems.includes(undefined);
  const isLong = letters > LONG_ROW;
  const hyphens = words.columns.some((x) => hasLongWord(row.cells[x]!, words.room * SHORT_WORD));
  return {
    ...row,
    cells,
    ...(isLong && { long: true }),
    ...(hyphens && { hyphens }),
    ...(isKnown && { ems }),
  };
}

const hasLongWord = ({ runs, detail = [] }: SetCell, longest: number): boolean =>
  [...runs, ...detail].some(
    (run) =>
      run.kind === 'text' && run.text.length > longest && run.text.split(SPACES).some(({ length }) => length > longest),
  );
const SPACES = /[\s\u00a0]/;

/** A run whose words need not be kept on one line, since all of it is on one. */
const kept = (run: Run | RoomRun): LineRun | RoomRun =>
  run.kind === 'text' && hasKeptWords(run.text) ? { ...run, onOneLine: true } : run;

const lettersOf = (runs: CellRuns): number =>
  runs.reduce((sum, run) => sum + (run.kind === 'text' ? run.text.length : 0), 0);
const sumOf = (numbers: readonly number[]) => numbers.reduce((sum, each) => sum + each, 0);

/** The texts among which the widest of a column is; figures stand for one another. */
function widestOf(cells: readonly SetCell[], widths: FontWidths): string[] | undefined {
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

const isPlain = (run: Run | RoomRun): run is Extract<Run, { kind: 'text' }> | RoomRun =>
  run.kind === 'room' || (run.kind === 'text' && !run.bold && !run.italic && !run.fault);

/** How wide a line of text is at most, in ems; nothing where it may have other lines or letters that are not foreseen. */
function emsOf(runs: CellRuns, widths: FontWidths): number | undefined {
  let ems = 0;
  for (const run of runs) {
    if (run.kind !== 'room' && (run.kind !== 'text' || run.fault)) return undefined;
    for (const letter of run.text) {
      const width = widths[letter];
      if (width === undefined) return undefined;
      ems += width;
    }
  }
  return ems * KERNING;
}
