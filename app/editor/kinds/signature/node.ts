import { computedBlock } from '../../sheet-node';

/** A line to sign on. */
export const signature = computedBlock('signature', { required: ['label', 'date'] });
