/** What becomes of lines that are optional: printed as the others, left out, said to be so, or in a table behind this one. */
export const OPTIONAL_WAYS = ['printed', 'left out', 'marked', 'own table'] as const;
export type OptionalWay = (typeof OPTIONAL_WAYS)[number];
