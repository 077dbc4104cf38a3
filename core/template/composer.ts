import type { Row } from '../formula/row';
import type { Value } from '../formula/value';
import type { ValueFormat } from '../formula/value-format';
import type { PrintedSum } from '../sheet/printed-sum';
import type { Block, ComposedBlock } from './blocks';
import type { PlacedPicture, Run } from './composed';
import type { TableStyle } from './blocks/line-table';
import type { Inline } from './inlines';
import type { BlankAs } from './inlines/value';
import type { TemplateFile } from './template-file';

/** A value that is to be printed. */
export interface ValueRequest {
  id: string;
  formula: string;
  /** Id of the block it stands in. */
  block: string;
  row?: Row;
  format?: ValueFormat;
  mayBeBlank?: boolean;
  blankAs?: BlankAs;
}

/** A value as it was printed, with the id of its workings. */
export interface PrintedRuns {
  runs: Run[];
  value: Value;
  workings: string;
}

/** How large a picture may be, in points. */
export interface PictureBox {
  width: number;
  height?: number;
  alt: string;
}

/** What a column of a table is held to. */
export interface ColumnTotal {
  /** What people call the column, and its total. */
  column: string;
  label: string;
  value: Value;
  /** Id of the total's workings. */
  workings: string;
  /** Of the table; absent for a sum that the sheet proves by itself. */
  block?: string;
}

/**
 * What composing gives to a block: evaluates what is to be printed, notes what was printed where and what was read for it, and
 * tells what is wrong. `row` is the item in scope, where a block stands in a section for each item of a list.
 */
export interface Composer {
  /** BCP 47. */
  readonly locale: string;
  /** What blocks print that is the document's, not theirs. */
  readonly around: {
    title: readonly Run[];
    logo: { picture: string; alt: string };
    table: TableStyle;
    files: Readonly<Record<string, TemplateFile>>;
  };

  blocks(blocks: readonly Block[] | undefined, row?: Row): ComposedBlock[];
  inlines(inlines: readonly Inline[] | undefined, block: string, row?: Row): Run[];

  /** The outcome of a condition; what counts as used is the outcome, not the fields it looked at. */
  chooses(id: string, formula: string, block: string, row?: Row): boolean;
  /** A value that decides something and is not printed itself. Its outcome counts as used. */
  decides(id: string, formula: string, block: string, row?: Row): Value;
  /** The rows that a block prints for; what is no list is a finding. */
  rows(id: string, list: string, label: string, row?: Row): Row[];
  /** A value that is not printed as words but stands behind what is. */
  read(request: ValueRequest): { key: string; value: Value };
  /** One value in the words of the edition. */
  print(request: ValueRequest): Run[];
  /** The same, with the value itself. */
  printed(request: ValueRequest): PrintedRuns;
  /** Says what people call a value, for whoever wants to know how it came about. */
  calls(id: string, name: string, row?: Row): void;
  /** A formatted text that is printed here; nothing, with a finding, where it is too long. */
  readable(html: string, block: string, key: string): string;
  /** Text with placeholders as runs, so that each value of it leads back to where it came from. */
  placed(id: string, source: string, block: string, row?: Row): Run[];
  /** The text of a formula that is printed in another form than words; undefined, with a finding, where it has none. */
  printedText(request: ValueRequest): string | undefined;
  /** The picture that a formula gives. Without one nothing is printed; that it is missing is a finding. */
  picture(request: ValueRequest, box: PictureBox): PlacedPicture | undefined;
  /** A picture by its hash, as large as its box allows; `size` in pixels, where it is known. */
  fitted(hash: string, size: { width?: number; height?: number }, box: PictureBox): PlacedPicture;
  /** Keeps a drawn picture among the document's assets; gives its hash. */
  drawn(svg: string): string;

  /** Tells an error as a finding; other values are none. */
  fault(value: Value, block: string): void;
  /** Tells that a table has nothing to print. */
  tellEmpty(block: string, label: string): void;
  /** Notes a section that this record leaves out, and why. */
  leaveOut(block: string, note: string): void;

  /** The total that a column of a table declares, by its formula; or the one that the sheet declares for that list and column. */
  totalOf(
    column: { id: string; list: string; formula: string; total?: string },
    row?: Row,
  ): Pick<ColumnTotal, 'label' | 'value' | 'workings'> | undefined;
  /** Holds a printed column to its total; what does not add up stops filing. */
  prove(sum: PrintedSum, total: ColumnTotal): void;
}
