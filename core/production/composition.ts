import type { PdfStandard } from '../template/template-file';
import type { Meanings } from '../formula/meanings';
import type { BridgeStep } from './bridge';
import type { Answer } from '../template/asks';
import type { Finding } from './findings/finding';
import type { ComposedStep } from './plan-steps';
import type { UsedValues } from '../record/used';
import type { Protection } from '../template/plan';
import type { Assets, ComposedDocument } from '../template/composed';

/** A value on the page: which block and which workings stand behind it. */
export interface PrintedValue {
  block: string;
  workings: string;
}

/** A figure of the document with its value in the words of the edition. `workings` is the id of its workings. */
export interface PrintedFigure {
  name: string;
  label: string;
  result: string;
  failed: boolean;
  workings: string;
  internal: boolean;
  /** Whether it is an amount of money. */
  isSum?: boolean;
}

/** How the PDF is made. The password is for the press alone: it is not kept with the document. */
export interface OutputSettings {
  standard?: PdfStandard;
  protection?: Omit<Protection, 'password'> & { password?: string };
}

/** Everything that composing a document gives. Plain data: it crosses threads and is stored with the document. */
export interface Composition {
  document: ComposedDocument;
  assets: Assets;
  /** The document's figures in the sheet's order. */
  figures: readonly PrintedFigure[];
  /** From list price to what is paid; absent where the sheet has no meanings to build it from. */
  bridge: readonly BridgeStep[] | null;
  /** The figures that have a meaning, of the document and of its rows: for the register, and for the standard's rules. */
  meanings: Meanings;
  values: Readonly<Record<string, PrintedValue>>;
  findings: readonly Finding[];
  fileName: string;
  title: string;
  currency: string | null;
  /** Ids of the edition and the plan that it was composed in. */
  edition: string;
  plan: string;
  output: OutputSettings;
  /** What is joined to the end, in order, by SHA-256, with how many pages each has. */
  annexes: readonly { label: string; sha256: string; pages: number }[];
  used: UsedValues;
  usedDigest: string;
  /** Sections that this record leaves out, with the reason. */
  leftOut: readonly { block: string; note: string }[];
  /** What was changed for this document alone, by the change: the values on the pages that are printed otherwise for it. */
  changed: Readonly<Record<string, readonly string[]>>;
  /** The margin notes of values that were given for this document alone, by the values on the pages; absent where there are none. */
  givenNotes?: Readonly<Record<string, string>>;
  /** What was asked for, with what was said; absent where nothing is. */
  answers?: readonly Answer[];
  /** What is done once it is filed, in order. */
  steps: readonly ComposedStep[];
  /** How many printed columns were proved to add up, for the words under the findings. */
  proved: { sums: number };
}
