import { computedBlock } from '../../sheet-node';

/** Labels and values one above the other. */
export const totals = computedBlock('totals', { required: ['rows'] });
