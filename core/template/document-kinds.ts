/** Kinds of documents, in the course of a sale. */
export const DOCUMENT_KINDS = [
  'quote', 'proposal', 'order confirmation', 'agreement', 'letter', 'delivery note', 'invoice', 'credit note', 'receipt',
] as const; // prettier-ignore
export type DocumentKind = (typeof DOCUMENT_KINDS)[number];
