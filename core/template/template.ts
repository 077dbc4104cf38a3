import type { FigureSheet } from '../formula/figure';
import type { Layout } from './layout';

export const TEMPLATE_FORMAT = 'lumbix-template';

/** Kinds of documents, in the course of a sale. */
export const DOCUMENT_KINDS = [
  'quote', 'proposal', 'order confirmation', 'agreement', 'letter', 'delivery note', 'invoice', 'credit note', 'receipt',
] as const; // prettier-ignore
export type DocumentKind = (typeof DOCUMENT_KINDS)[number];

/** A language or brand variant. */
export interface Edition {
  id: string;
  label: string;
  /** BCP 47. */
  locale: string;
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
  sheet: FigureSheet;
  layout: Layout;
  editions: Edition[];
  plans: Plan[];
  checks: Check[];
}

/** A brand's fonts, colours, logo and company details. */
export interface HouseStyle {
  id: string;
  name: string;
  fonts: { text: string; headings: string };
  colours: { ink: string; quiet: string; accent: string; rule: string };
  /** SVG source, drawn by the project. */
  logo: { svg: string; alt: string };
  /** Read in formulas as `company.name`, `company.country` and so on. */
  company: Readonly<Record<string, string>>;
}
