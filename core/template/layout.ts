import type { ValueFormat } from '../formula/value';

/** How a piece of text looks. A colour is a house style's `accent` or six hexadecimal digits after `#`. */
export type Mark =
  | { type: 'bold' | 'italic' | 'underline' | 'quiet' }
  | { type: 'colour'; attrs: { colour: string } }
  | { type: 'link'; attrs: { href: string } };

/** A run of text, a value, or a page field, inside a paragraph. The shape is the editor's own JSON. */
export type Inline =
  | { type: 'text'; text: string; marks?: Mark[] }
  | {
      type: 'value';
      attrs: { id: string; formula: string; format?: ValueFormat; mayBeBlank?: boolean };
      marks?: Mark[];
    }
  | { type: 'hardBreak' }
  | { type: 'pageNumber' }
  | { type: 'pageCount' }
  /** The document's title, as its plan has it. */
  | { type: 'documentTitle' };

/** One column of a line table. */
export interface ColumnDefinition {
  id: string;
  /** Text with `=[formula]` placeholders. */
  heading: string;
  /** Evaluated for each item; a `counter` column numbers the rows instead. */
  formula: string;
  counter?: boolean;
  /** The formula gives a picture, printed no wider and no higher than this, in points. */
  picture?: { width: number; height: number };
  /** A quieter second line under the value; nothing where it is blank. */
  detail?: string;
  format?: ValueFormat;
  align: 'start' | 'end';
  /** As wide as its content asks, or all the rest. */
  width: 'content' | 'rest';
  mayBeBlank?: boolean;
  /** Printed only when this formula over the whole document holds. */
  when?: string;
  /** Formula over the whole document of what the printed rows of this column add up to: `subtotal`. Proved each time. */
  total?: string;
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

/** How items that are parts of another one print: formulas, each for an item. */
export interface TableBundles {
  /** What the whole is known by: `sku`. */
  key: string;
  /** The key of the whole that an item is a part of; blank for an item of its own: `part_of`. */
  partOf: string;
  /** For the whole: "indented" parts under it, "rolled up" into its second line, or "hidden". */
  show: string;
  /** For a part: what names it where it is rolled up. */
  name: string;
}

/** Looks of a table: hairlines between its rows; bands of a quiet tint; or close rows in small type. */
export const TABLE_STYLES = ['rules', 'bands', 'dense'] as const;
export type TableStyle = (typeof TABLE_STYLES)[number];

export interface LineTable {
  id: string;
  label: string;
  /** Formula of the items. */
  list: string;
  /** Only items for which this holds. */
  filter?: string;
  /** The order of the items: by this formula, least first unless descending. */
  sort?: { by: string; descending?: boolean };
  columns: ColumnDefinition[];
  /** What is printed in place of a table without items; nothing at all where absent. */
  empty?: string;
  groups?: TableGroups;
  bundles?: TableBundles;
  /** Id of the column whose running sum is printed where a page ends and the next begins. */
  carry?: string;
  /** Instead of the house style's. */
  style?: TableStyle;
}

/** Codes that are printed, by the names of their standards: ISO/IEC 18004, 15417 and 16022, GS1 EAN-13. */
export const SYMBOLOGIES = ['qrcode', 'code128', 'datamatrix', 'ean13'] as const;
export type Symbology = (typeof SYMBOLOGIES)[number];

export type Block =
  | { type: 'paragraph'; attrs: { id: string; look?: 'quiet' | 'small' | 'lead'; align?: 'start' | 'end' }; content: Inline[] } // prettier-ignore
  | { type: 'heading'; attrs: { id: string; level: 1 | 2 | 3 }; content: Inline[] }
  | { type: 'bulletList'; attrs: { id: string }; content: Inline[][] }
  | { type: 'numberedList'; attrs: { id: string; start?: number }; content: Inline[][] }
  /** A table of words. `widths` in fractions of the measure; the first row is a heading where `header` says so. */
  | { type: 'gridTable'; attrs: { id: string; widths: number[]; header?: boolean }; rows: Inline[][][] }
  | { type: 'lineTable'; attrs: LineTable }
  | { type: 'totals'; attrs: { id: string; rows: TotalsRow[] } }
  | {
      type: 'whenSection';
      attrs: { id: string; when: string; note: string };
      content: Block[];
      otherwise?: Block[];
    }
  /** Blocks repeated for each item of a list, with the item in scope. `startsPage`: each begins a page of its own. */
  | { type: 'forEach'; attrs: { id: string; list: string; note: string; startsPage?: boolean }; content: Block[] }
  /** The blocks of a clause, as the template version pins it. */
  | { type: 'clause'; attrs: { id: string; clause: string } }
  /** A formatted text of the record. */
  | { type: 'richText'; attrs: { id: string; formula: string; mayBeBlank?: boolean } }
  | { type: 'pageBreak'; attrs: { id: string } }
  /** A line to sign on, with words under it (with placeholders) and a place for the date. */
  | { type: 'signature'; attrs: { id: string; label: string; date: string } }
  /** A file of the template, or the picture that a formula gives; no larger than this, in points. */
  | { type: 'picture'; attrs: { id: string; file?: string; formula?: string; width: number; height?: number; alt: string; align?: 'start' | 'end' } } // prettier-ignore
  /** A formula's text as a QR code or barcode; `width` in points. */
  | { type: 'code'; attrs: { id: string; symbology: Symbology; formula: string; width: number; alt: string } }
  /** The European payment QR code (EPC069-12): formulas of its parts. */
  | { type: 'paymentCode'; attrs: { id: string; payee: string; iban: string; amount: string; reference: string; width: number } } // prettier-ignore
  | { type: 'keepTogether'; attrs: { id: string }; content: Block[] }
  /** `widths` in fractions of the measure, one for each column. */
  | { type: 'columns'; attrs: { id: string; widths: number[] }; columns: Block[][] }
  | { type: 'logo'; attrs: { id: string; width: number; align?: 'start' | 'end' } }
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

export const PAGE_SIZES = ['a4', 'letter', 'a5'] as const;
export type PageSize = (typeof PAGE_SIZES)[number];

/** What runs along the pages. */
export interface Letterhead {
  header: Block[];
  /** Header of the second page on; nothing where absent. */
  followingHeader?: Block[];
  footer: Block[];
}

/** What a template prints: page set-up and blocks. What runs along the pages is the house style's, unless it is here. */
export interface Layout extends Partial<Letterhead> {
  page: { size: PageSize; landscape?: boolean; margins?: Margins };
  body: Block[];
}

/** The same block with other blocks inside of it. A block that holds none stays as it is. */
export function withInnerBlocks(block: Block, change: (blocks: readonly Block[]) => Block[]): Block {
  switch (block.type) {
    case 'whenSection': {
      const { content, otherwise } = block;
      return { ...block, content: change(content), ...(otherwise && { otherwise: change(otherwise) }) };
    }
    case 'forEach':
    case 'keepTogether':
      return { ...block, content: change(block.content) };
    case 'columns':
      return { ...block, columns: block.columns.map(change) };
    default:
      return block;
  }
}

/** Visits every block, those inside of others too. */
export function visitBlocks(blocks: readonly Block[], visit: (block: Block) => unknown): void {
  for (const block of blocks) {
    visit(block);
    withInnerBlocks(block, (inner) => {
      visitBlocks(inner, visit);
      return [...inner];
    });
  }
}
