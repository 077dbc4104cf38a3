import type { Margins, PageSize } from '../template/layout';

/** A piece of running text, already in the words and digits it prints with. */
export type Run =
  | {
      kind: 'text';
      text: string;
      bold?: boolean;
      italic?: boolean;
      quiet?: boolean;
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

export interface ComposedCell {
  runs: Run[];
  detail?: Run[];
}

/** Rows of a table that belong together: all of them, or a group's with its heading and its sum. */
export interface TableSection {
  heading?: Run[];
  rows: ComposedCell[][];
  subtotal?: { label: Run[]; value: Run[] };
}

/** A block as it prints. `source` is the id of the template's block. */
export type ComposedBlock =
  | { kind: 'paragraph'; source: string; look?: 'quiet' | 'small'; align: 'start' | 'end'; runs: Run[] }
  | { kind: 'heading'; source: string; level: 1 | 2 | 3; runs: Run[] }
  | { kind: 'list'; source: string; items: Run[][] }
  | { kind: 'table'; source: string; label: string; columns: ComposedColumn[]; sections: TableSection[] }
  | { kind: 'pageBreak'; source: string }
  | { kind: 'signature'; source: string; label: Run[]; date: Run[] }
  | { kind: 'totals'; source: string; rows: { label: Run[]; value: Run[]; emphasis: boolean }[] }
  | { kind: 'section'; source: string; note: string; blocks: ComposedBlock[] }
  | { kind: 'keep'; source: string; blocks: ComposedBlock[] }
  | { kind: 'columns'; source: string; widths: number[]; columns: ComposedBlock[][] }
  /** `picture` is the SHA-256 of the asset; `width` in points. */
  | { kind: 'picture'; source: string; picture: string; width: number; alt: string }
  | { kind: 'divider'; source: string }
  | { kind: 'space'; source: string; height: number };

/** A document as it prints: no formula, no condition, only text, tables and pictures by hash. */
export interface ComposedDocument {
  title: string;
  /** BCP 47 language and, where it has one, region. */
  language: string;
  region?: string;
  direction: 'ltr' | 'rtl';
  /** ISO 8601 day of issue. */
  date: string;
  author: string;
  page: { size: PageSize; landscape?: boolean; margins: Margins };
  style: {
    fonts: { text: string; headings: string };
    colours: { ink: string; quiet: string; accent: string; rule: string };
  };
  header: ComposedBlock[];
  followingHeader: ComposedBlock[];
  footer: ComposedBlock[];
  body: ComposedBlock[];
}

/** Pictures by their SHA-256. */
export type Assets = Readonly<Record<string, { mediaType: 'image/svg+xml' | 'image/png'; text: string }>>;
