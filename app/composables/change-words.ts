import type { DocumentChange } from '#core/production/document-change';

const WORDS: { [Type in DocumentChange['type']]: (change: Extract<DocumentChange, { type: Type }>) => string } = {
  value: ({ value }) => (value === '' ? 'is blank here' : `is “${value}” here`),
  section: ({ prints }) => (prints ? 'is printed' : 'is left out'),
  words: () => 'says something else',
  leaveOut: () => 'is left out',
  add: () => 'is put in',
  join: () => 'is joined to the end',
};

/** What was changed in one document, after the name of what it is: “is left out”. */
export const changeWords = (change: DocumentChange): string =>
  (WORDS[change.type] as (change: DocumentChange) => string)(change);
