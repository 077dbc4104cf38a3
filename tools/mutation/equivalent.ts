/** Changes that make no difference to any number: they only choose between two ways to the same one. */
export const EQUIVALENT: readonly { file: string; line: string; was: string; why: string }[] = [];
