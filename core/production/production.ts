/** What a document is before, while and after it is made: a template version, a record, and what was chosen. */

import type { Clause } from '../template/clause';
import type { TemplateFile } from '../template/template-file';
import type { MadeChange } from './document-change';

/** What a person or a program chose for one document; what is absent is left to the template. */
export interface Choices {
  plan?: string;
  edition?: string;
  /** Instead of the edition's. */
  houseStyle?: string;
  /** What was changed for this document alone, in the order in which it was. */
  changes?: readonly MadeChange[];
  /** The clauses that were put in, as they were then. */
  clauses?: readonly Clause[];
  /** The pictures and PDFs that were put in, by the SHA-256 of their bytes. */
  files?: Readonly<Record<string, TemplateFile>>;
  /** That it takes a number of its own, where it would be the next revision of what was filed before. */
  asNew?: boolean;
  /** The day of issue, where it is not the day of filing. ISO 8601. */
  issueDate?: string;
  /** Reasons for skipping findings that warn, by finding. */
  skips?: Readonly<Record<string, string>>;
}

/** The document that another one would be the next revision of. */
export interface Revising {
  id: string;
  /** As it is printed. */
  number: string;
  /** What the next one has in its place, of the same serial. */
  next: { serial: number; text: string };
}
