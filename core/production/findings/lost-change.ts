import type { Finding } from './finding';

/** A change that was made for this document and has nothing to change any more. */
export const lostChange = ({ id, sentence }: { id: string; sentence: string }): Finding => ({
  id: `change ${id}`,
  severity: 'stops',
  title: 'A change does not apply any more',
  sentence,
  values: [],
});
