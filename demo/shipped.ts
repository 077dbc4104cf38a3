import { shaped } from '../core/shape/faults';
import { clause } from '../core/template/clause';
import { houseStyle } from '../core/template/house-style';
import { templateShape } from '../core/template/template';
import type { ShapeOf } from '../core/shape/shape';
import complaints from './clauses/complaints.json';
import termsOfSale from './clauses/terms-of-sale.json';
import titleAndRisk from './clauses/title-and-risk.json';
import littleVale from './house-styles/little-vale.json';
import orrinVale from './house-styles/orrin-vale.json';
import creditNote from './templates/credit-note.json';
import deliveryNote from './templates/delivery-note.json';
import depositInvoice from './templates/deposit-invoice.json';
import finalInvoice from './templates/final-invoice.json';
import fullProposal from './templates/full-proposal.json';
import glasshouseQuote from './templates/glasshouse-quote.json';
import orderConfirmation from './templates/order-confirmation.json';
import serviceAgreement from './templates/service-agreement.json';

/** What comes with Lumbix, read as any file is. */
function read<T>(shape: ShapeOf<T>, file: unknown): T {
  const result = shaped(shape, file, 'a file that comes with Lumbix');
  if ('faults' in result) throw new Error(result.faults.map(({ sentence }) => sentence).join('\n'));
  return result.value;
}

/** The house styles, clauses and templates that come with Lumbix. */
export const shipped = {
  houseStyles: [orrinVale, littleVale].map((file) => read(houseStyle, file)),
  clauses: [termsOfSale, titleAndRisk, complaints].map((file) => read(clause, file)),
  templates: [glasshouseQuote, fullProposal, orderConfirmation, serviceAgreement, deliveryNote, depositInvoice, finalInvoice, creditNote].map((file) => read(templateShape, file)),
}; // prettier-ignore
