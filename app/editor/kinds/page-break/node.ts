import { computedBlock } from '../../sheet-node';

/** What follows begins a page. */
export const pageBreak = computedBlock('pageBreak');
