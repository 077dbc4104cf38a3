import type { Finding } from './finding';

/** More than can be printed in one document. */
export const tooMuch = (block: string, sentence: string, key?: string): Finding => ({
  id: `too much ${key ?? block}`,
  severity: 'stops',
  title: 'Too much to print',
  sentence,
  block,
  values: key === undefined ? [] : [key],
});
