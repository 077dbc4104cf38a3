import { computedBlock } from '../../sheet-node';

/** The house style's logo. */
export const logo = computedBlock('logo', { required: ['width'], optional: ['align'] });
