import { computedBlock } from '../../sheet-node';

/** The blocks of a clause. */
export const clause = computedBlock('clause', { required: ['clause'] });
