import { computedBlock } from '../../sheet-node';

/** A formatted text of the record. */
export const richText = computedBlock('richText', { required: ['formula'], optional: ['mayBeBlank'] });
