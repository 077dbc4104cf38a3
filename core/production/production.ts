/** What a document is before, while and after it is made: a template version, a record, and what was chosen. */

/** What a person or a program chose for one document; what is absent is left to the template. */
export interface Choices {
  plan?: string;
  edition?: string;
  /** Instead of the edition's. */
  houseStyle?: string;
  /** Reasons for skipping findings that warn, by finding. */
  skips?: Readonly<Record<string, string>>;
}
