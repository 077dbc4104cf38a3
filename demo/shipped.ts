import { fitting } from '../core/shape/faults';
import { clause } from '../core/template/clause';
import { houseStyle } from '../core/template/house-style';
import { templateShape } from '../core/template/template';
import complaints from './clauses/complaints.json';
import termsOfSale from './clauses/terms-of-sale.json';
import titleAndRisk from './clauses/title-and-risk.json';
import littleVale from './house-styles/little-vale.json';
import orrinVale from './house-styles/orrin-vale.json';
import accountLetter from './templates/account-letter.json';
import creditNote from './templates/credit-note.json';
import deliveryNote from './templates/delivery-note.json';
import depositInvoice from './templates/deposit-invoice.json';
import finalInvoice from './templates/final-invoice.json';
import fullProposal from './templates/full-proposal.json';
import glasshouseQuote from './templates/glasshouse-quote.json';
import letter from './templates/letter.json';
import orderConfirmation from './templates/order-confirmation.json';
import receipt from './templates/receipt.json';
import serviceAgreement from './templates/service-agreement.json';

const OURS = 'a file that comes with Lumbix';

/** The house styles, clauses and templates that come with Lumbix. */
export const shipped = {
  houseStyles: [orrinVale, littleVale].map((file) => fitting(houseStyle, file, OURS)),
  clauses: [termsOfSale, titleAndRisk, complaints].map((file) => fitting(clause, file, OURS)),
  templates: [
    glasshouseQuote,
    fullProposal,
    orderConfirmation,
    serviceAgreement,
    letter,
    accountLetter,
    deliveryNote,
    depositInvoice,
    finalInvoice,
    creditNote,
    receipt,
  ].map((file) => fitting(templateShape, file, OURS)),
};
