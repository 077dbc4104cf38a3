import { computedBlock } from '../../sheet-node';

/** Nothing, of a height in points. */
export const space = computedBlock('space', { required: ['height'] });
