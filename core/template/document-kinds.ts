/** Kinds of documents, in the course of a sale. */
export const DOCUMENT_KINDS = [
  'quote', 'proposal', 'order confirmation', 'agreement', 'letter', 'delivery note', 'invoice', 'credit note', 'receipt',
] as const; // prettier-ignore
export type DocumentKind = (typeof DOCUMENT_KINDS)[number];

const REVISED: readonly string[] = ['quote', 'proposal', 'order confirmation', 'agreement'] satisfies DocumentKind[];

/** Whether what is filed again of a kind is the next revision of what was filed before. What asks for money or tells what happened is not. */
export const isRevised = (kind: string): boolean => REVISED.includes(kind);
