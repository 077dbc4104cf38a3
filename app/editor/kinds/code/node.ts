import { computedBlock } from '../../sheet-node';

/** A text as a QR code or barcode. */
export const code = computedBlock('code', { required: ['symbology', 'formula', 'width', 'alt'] });
