import { formatValue } from '../formula/value';
import { dayOf } from '../formula/date';
import { INTERFACE_LOCALE } from '../words/interface';
import type { DocumentChange, MadeChange } from './document-change';

const WORDS: Readonly<Record<DocumentChange['type'], string>> = {
  value: 'value given',
  section: 'switched',
  words: 'words changed',
  leaveOut: 'left out',
  add: 'added',
  join: 'joined',
};

/** The note in the margin beside what was changed for one document: “words changed by Tamar Whitlow, 27 Nov”. */
export function changeNote({ change, label, by, at }: MadeChange): string {
  const day = formatValue({ type: 'date', day: dayOf(at.slice(0, 10))! }, INTERFACE_LOCALE, 'MMMMd');
  const what = change.type === 'section' ? (change.prints ? 'switched on' : 'switched off') : WORDS[change.type];
  // What is left out is not there to be seen.
  const isGone = change.type === 'leaveOut' || (change.type === 'section' && !change.prints);
  return `${what} by ${by}, ${day}${isGone ? `: ${label}` : ''}`;
}
