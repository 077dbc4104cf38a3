import type { Finding } from './finding';

/** A step after filing that cannot be done: told before anything is filed. */
export const failedStep = ({ step, sentence }: { step: string; sentence: string }): Finding => ({
  id: `step ${step}`,
  severity: 'stops',
  title: 'A step after filing cannot be done',
  sentence,
  values: [],
});
