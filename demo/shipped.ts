import type { Clause, HouseStyle, Template } from '../core/template/template';
import orrinVale from './house-styles/orrin-vale.json';
import depositInvoice from './templates/deposit-invoice.json';
import fullProposal from './templates/full-proposal.json';
import glasshouseQuote from './templates/glasshouse-quote.json';

/** The house styles, clauses and templates that come with Lumbix. */
export const shipped = {
  houseStyles: [orrinVale] as HouseStyle[],
  clauses: [] as Clause[],
  templates: [glasshouseQuote, fullProposal, depositInvoice] as unknown as Template[],
};
