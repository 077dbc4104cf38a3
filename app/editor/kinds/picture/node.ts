import { computedBlock } from '../../sheet-node';

/** A file of the template, or the picture that a formula gives. */
export const picture = computedBlock('picture', {
  required: ['width', 'alt'],
  optional: ['file', 'formula', 'height', 'align'],
});
