import type { FILE_MEDIA_TYPES, HouseStyle } from '../template/template';
import type { Margins, PageSize, TableStyle } from '../template/layout';

/** A piece of running text, already in the words and digits it prints with. */
export type Run =
  | {
      kind: 'text';
      text: string;
      bold?: boolean;
      italic?: boolean;
      underline?: boolean;
      quiet?: boolean;
      /** `accent`, or six hexadecimal digits after `#`. */
      colour?: string;
      link?: string;
      /** Where a value came from, so that a click on the proof can lead back: a key of `Composition.values`. */
      value?: string;
      /** A visible mark of what is wrong; never in a filed document. */
      fault?: 'error' | 'blank';
    }
  | { kind: 'break' }
  | { kind: 'pageNumber' }
  | { kind: 'pageCount' };

export interface ComposedColumn {
  heading: Run[];
  align: 'start' | 'end';
  width: 'content' | 'rest';
}

/** A picture by the SHA-256 of its bytes. Sizes in points; the height follows from the width. */
export interface PlacedPicture {
  picture: string;
  width: number;
  alt: string;
  value?: string;
}

export interface ComposedCell {
  runs: Run[];
  detail?: Run[];
  picture?: PlacedPicture;
}

export interface TableRow {
  cells: ComposedCell[];
  /** A part of the item above it. */
  part?: boolean;
  /** The running sum up to here, where the table carries one over its pages. */
  carried?: string;
}

/** Rows of a table that belong together: all of them, or a group's with its heading and its sum. */
export interface TableSection {
  heading?: Run[];
  rows: TableRow[];
  subtotal?: { label: Run[]; value: Run[] };
}

export interface ComposedTable {
  kind: 'table';
  source: string;
  label: string;
  style: TableStyle;
  columns: ComposedColumn[];
  sections: TableSection[];
  /** What is written before the running sum at the end of a page and at the beginning of the next; its column. */
  carry?: { column: number; forward: string; brought: string };
}

/** A block as it prints. `source` is the id of the template's block. */
export type ComposedBlock =
  | { kind: 'paragraph'; source: string; look?: 'quiet' | 'small' | 'lead'; align: 'start' | 'end'; runs: Run[] }
  | { kind: 'heading'; source: string; level: 1 | 2 | 3; runs: Run[] }
  | { kind: 'list'; source: string; items: Run[][]; /** Number of the first item; bullets where absent. */ start?: number }
  | { kind: 'grid'; source: string; widths: number[]; header: boolean; rows: Run[][][] }
  | ComposedTable
  | { kind: 'pageBreak'; source: string }
  | { kind: 'signature'; source: string; label: Run[]; date: Run[] }
  | { kind: 'totals'; source: string; rows: { label: Run[]; value: Run[]; emphasis: boolean }[] }
  | { kind: 'section'; source: string; note: string; blocks: ComposedBlock[] }
  | { kind: 'keep'; source: string; blocks: ComposedBlock[] }
  | { kind: 'columns'; source: string; widths: number[]; columns: ComposedBlock[][] }
  | ({ kind: 'picture'; source: string; align: 'start' | 'end' } & PlacedPicture)
  | { kind: 'divider'; source: string }
  | { kind: 'space'; source: string; height: number }; // prettier-ignore

/** A document as it prints: no formula, no condition, only text, tables and pictures by hash. */
export interface ComposedDocument {
  title: string;
  /** BCP 47 language and, where it has one, region. */
  language: string;
  region?: string;
  direction: 'ltr' | 'rtl';
  /** The ten digits that its numbers are written in, those of its pages and lists too. */
  digits: string;
  /** ISO 8601 day of issue. */
  date: string;
  author: string;
  page: { size: PageSize; landscape?: boolean; margins: Margins };
  style: Pick<HouseStyle, 'fonts' | 'type' | 'colours' | 'composition'>;
  /** Text across every page. */
  watermark?: string;
  /** Pages of what is joined to the end, as far as they count. */
  annexPages: number;
  header: ComposedBlock[];
  followingHeader: ComposedBlock[];
  footer: ComposedBlock[];
  body: ComposedBlock[];
}

/** The bytes of a picture, or of a PDF that is joined to the end. */
export interface Asset {
  mediaType: (typeof FILE_MEDIA_TYPES)[number];
  bytes: Uint8Array;
}

/** Pictures and annexes by their SHA-256. */
export type Assets = Readonly<Record<string, Asset>>;
