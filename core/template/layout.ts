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

/** How a line table is grouped: by the rows of a list that have items of their own, as GROUP makes them. */
export interface TableGroups {
  /** Formula of the groups: a derived list's name. */
  list: string;
  /** Formula of a group's items, with the group in scope: `item.lines`. */
  items: string;
  /** Text with placeholders, the group in scope. */
  heading: string;
  subtotal?: { label: string; formula: string };
}

/** Codes that are printed, by the names of their standards: ISO/IEC 18004, 15417 and 16022, GS1 EAN-13. */
export type Symbology = 'qrcode' | 'code128' | 'datamatrix' | 'ean13';

export type Block =
  | { type: 'paragraph'; attrs: { id: string; look?: 'quiet' | 'small'; align?: 'start' | 'end' }; content: Inline[] }
  | { type: 'heading'; attrs: { id: string; level: 1 | 2 | 3 }; content: Inline[] }
  | { type: 'bulletList'; attrs: { id: string }; content: Inline[][] }
  | {
      type: 'lineTable';
      attrs: {
        id: string;
        label: string;
        list: string;
        columns: ColumnDefinition[];
        empty?: string;
        groups?: TableGroups;
      };
    }
  | { type: 'totals'; attrs: { id: string; rows: TotalsRow[] } }
  | {
      type: 'whenSection';
      attrs: { id: string; when: string; note: string };
      content: Block[];
      otherwise?: Block[];
    }
  /** Blocks repeated for each item of a list, with the item in scope. `startsPage`: each begins a page of its own. */
  | { type: 'forEach'; attrs: { id: string; list: string; note: string; startsPage?: boolean }; content: Block[] }
  | { type: 'pageBreak'; attrs: { id: string } }
  /** A line to sign on, with words under it (with placeholders) and a place for the date. */
  | { type: 'signature'; attrs: { id: string; label: string; date: string } }
  /** A formula's text as a QR code or barcode; `width` in points. */
  | { type: 'code'; attrs: { id: string; symbology: Symbology; formula: string; width: number; alt: string } }
  /** The European payment QR code (EPC069-12): formulas of its parts. */
  | { type: 'paymentCode'; attrs: { id: string; payee: string; iban: string; amount: string; reference: string; width: number } } // prettier-ignore
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

export type PageSize = 'a4' | 'letter' | 'a5';

/** What a template prints: page set-up and blocks. */
export interface Layout {
  page: { size: PageSize; landscape?: boolean; margins: Margins };
  header: Block[];
  /** Header of the second page on; nothing where absent. */
  followingHeader?: Block[];
  footer: Block[];
  body: Block[];
}
