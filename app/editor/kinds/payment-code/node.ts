import { computedBlock } from '../../sheet-node';

/** The European payment QR code. */
export const paymentCode = computedBlock('paymentCode', {
  required: ['payee', 'iban', 'amount', 'reference', 'width'],
});
