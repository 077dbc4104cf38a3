import { computedBlock } from '../../sheet-node';

/** A line across the measure. */
export const divider = computedBlock('divider');
