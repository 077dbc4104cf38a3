import type { ValueFormat } from '../formula/value';

/** A run of text, a value, or a page field, inside a paragraph. The shape is the editor's own JSON. */
export type Inline =
  | { type: 'text'; text: string; marks?: { type: 'bold' | 'italic' | 'quiet' }[] }
  | {
      type: 'value';
      attrs: { id: string; formula: string; format?: ValueFormat; mayBeBlank?: boolean };
      marks?: { type: 'bold' | 'italic' | 'quiet' }[];
    }
  | { type: 'hardBreak' }
  | { type: 'pageNumber' }
  | { type: 'pageCount' };

/** One column of a line table. */
export interface ColumnDefinition {
  id: string;
  /** Text with `=[formula]` placeholders. */
  heading: string;
  /** Evaluated for each item; a `counter` column numbers the rows instead. */
  formula: string;
  counter?: boolean;
  /** A quieter second line under the value; nothing where it is blank. */
  detail?: string;
  format?: ValueFormat;
  align: 'start' | 'end';
  /** As wide as its content asks, or all the rest. */
  width: 'content' | 'rest';
  mayBeBlank?: boolean;
  /** Printed only when this formula over the whole document holds. */
  when?: string;
}

/** One row of the totals block. */
export interface TotalsRow {
  id: string;
  label: string;
  /** Formula of the value; with `each`, evaluated for each item of that list. */
  formula: string;
  each?: string;
  when?: string;
  emphasis?: 'total';
}

export type Block =
  | { type: 'paragraph'; attrs: { id: string; look?: 'quiet' | 'small'; align?: 'start' | 'end' }; content: Inline[] }
  | { type: 'heading'; attrs: { id: string; level: 1 | 2 | 3 }; content: Inline[] }
  | { type: 'bulletList'; attrs: { id: string }; content: Inline[][] }
  | {
      type: 'lineTable';
      attrs: { id: string; label: string; list: string; columns: ColumnDefinition[]; empty?: string };
    }
  | { type: 'totals'; attrs: { id: string; rows: TotalsRow[] } }
  | {
      type: 'whenSection';
      attrs: { id: string; when: string; note: string };
      content: Block[];
      otherwise?: Block[];
    }
  | { type: 'keepTogether'; attrs: { id: string }; content: Block[] }
  /** `widths` in fractions of the measure, one for each column. */
  | { type: 'columns'; attrs: { id: string; widths: number[] }; columns: Block[][] }
  | { type: 'logo'; attrs: { id: string; width: number } }
  | { type: 'divider'; attrs: { id: string } }
  /** `height` in points. */
  | { type: 'space'; attrs: { id: string; height: number } };

/** Page margins in millimetres. */
export interface Margins {
  top: number;
  right: number;
  bottom: number;
  left: number;
}

/** What a template prints: page set-up and blocks. */
export interface Layout {
  page: { size: 'a4' | 'letter'; margins: Margins };
  header: Block[];
  /** Header of the second page on; nothing where absent. */
  followingHeader?: Block[];
  footer: Block[];
  body: Block[];
}
