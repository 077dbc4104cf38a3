import type { FigureSheet } from '../sheet/figure';
import type { Block, Layout, Letterhead, Margins, TableStyle } from './layout';
import type { Words } from './wording';

export const TEMPLATE_FORMAT = 'lumbix-template';

/** Kinds of documents, in the course of a sale. */
export const DOCUMENT_KINDS = [
  'quote', 'proposal', 'order confirmation', 'agreement', 'letter', 'delivery note', 'invoice', 'credit note', 'receipt',
] as const; // prettier-ignore
export type DocumentKind = (typeof DOCUMENT_KINDS)[number];

/** A language or brand variant. It brings words, never logic. */
export interface Edition {
  id: string;
  label: string;
  /** BCP 47. */
  locale: string;
  /** Instead of the template's. */
  houseStyle?: string;
  words?: Words;
  /** Ids of blocks that this edition leaves out. */
  without?: string[];
  /** Blocks in place of others, by their ids. */
  instead?: Readonly<Record<string, Block[]>>;
}

/** ISO 19005-2 level b (for archives), ISO 14289-1 (for everybody's eyes and ears). */
export const PDF_STANDARDS = ['pdf/a-2b', 'pdf/ua-1'] as const;
export type PdfStandard = (typeof PDF_STANDARDS)[number];

/** What a person who has the PDF may do; with a password to open it, if there is one. ISO 32000-2, 7.6. */
export interface Protection {
  /** Formula of the password that opens it. */
  password?: string;
  printing: boolean;
  copying: boolean;
  changing: boolean;
}

/** A named way out of a template. */
export interface Plan {
  id: string;
  label: string;
  /** Text with `=[formula]` placeholders; made safe for file systems. */
  fileName: string;
  /** The number series the document takes its number from. */
  series: string;
  /** Text with placeholders: the document's title, for the register and the PDF. */
  title: string;
  pdf?: {
    standard?: PdfStandard;
    /** Text across every page. */
    watermark?: string;
    protection?: Protection;
  };
}

/** PDF files that are joined to the end, chosen by a formula that gives their names among the template's files. */
export interface Annex {
  id: string;
  label: string;
  /** Gives a name, a list of names, or a blank for none. */
  file: string;
  /** Whether its pages count in “page 1 of 3”. */
  counted?: boolean;
}

export const FILE_MEDIA_TYPES = ['image/svg+xml', 'image/png', 'image/jpeg', 'application/pdf'] as const;

/** A picture or PDF that belongs to a template. */
export interface TemplateFile {
  mediaType: (typeof FILE_MEDIA_TYPES)[number];
  sha256: string;
  /** Pages of a PDF. */
  pages?: number;
  /** Of a picture, in pixels. */
  width?: number;
  height?: number;
  /** Its bytes in base64, in a template that was taken out; in here they are kept once, by their hash. */
  content?: string;
}

/** A rule of the template's own: a formula that must hold, and the sentence if it does not. */
export interface Check {
  id: string;
  title: string;
  formula: string;
  /** Text with `=[formula]` placeholders. */
  sentence: string;
  severity: 'stops' | 'warns';
  /** The figure whose workings explain it. */
  figure?: string;
}

/** A template in Lumbix's open file format: a JSON file that can be taken out, changed, reviewed and put back. */
export interface Template {
  format: typeof TEMPLATE_FORMAT;
  formatVersion: 1;
  id: string;
  name: string;
  kind: DocumentKind;
  /** The CRM's record type it is filled from, and the name that record has in formulas. */
  record: { type: string; root: string };
  houseStyle: string;
  /** What of the house style this template has otherwise. */
  style?: Partial<Pick<HouseStyle, 'table' | 'composition' | 'type'>> & { colours?: Partial<HouseStyle['colours']> };
  /** Formula that gives the edition's id; the first edition where it gives none that there is. */
  edition?: string;
  sheet: FigureSheet;
  layout: Layout;
  editions: Edition[];
  plans: Plan[];
  checks: Check[];
  annexes?: Annex[];
  /** By their names in the template. */
  files?: Readonly<Record<string, TemplateFile>>;
}

/** Words that many templates share: terms, warranties. A template version pins those it refers to. */
export interface Clause {
  id: string;
  name: string;
  content: Block[];
  /** Translations by language (BCP 47, without region). */
  words?: Readonly<Record<string, Words>>;
}

/** How a page is composed: over its full measure; or text in a narrower column, with headings hanging beside it. */
export const COMPOSITIONS = ['full', 'hanging'] as const;
export type PageComposition = (typeof COMPOSITIONS)[number];

/** Families that come with Lumbix. */
export const FONTS = ['Source Sans 3', 'Source Serif 4', 'Noto Sans'] as const;
export type Font = (typeof FONTS)[number];

/** A brand's fonts, colours, logo, stationery and company details. */
export interface HouseStyle {
  id: string;
  name: string;
  fonts: { text: Font; headings: Font };
  /** Type in points: running text, and how much larger one step of headings is than the next. */
  type: { text: number; step: number };
  colours: { ink: string; quiet: string; accent: string; rule: string; tint: string };
  table: TableStyle;
  composition: PageComposition;
  margins: Margins;
  /** SVG source, drawn by the project. */
  logo: { svg: string; alt: string };
  letterhead: Letterhead;
  /** Read in formulas as `company.name`, `company.country` and so on. */
  company: Readonly<Record<string, string>>;
}

/** What a template version was published with: it prints the same whatever becomes of them. */
export interface Pins {
  houseStyles: readonly HouseStyle[];
  clauses: readonly Clause[];
}
