import type { HouseStyle, Template } from '../core/template/template';
import orrinVale from './house-styles/orrin-vale.json';
import depositInvoice from './templates/deposit-invoice.json';
import fullProposal from './templates/full-proposal.json';
import glasshouseQuote from './templates/glasshouse-quote.json';

/** The house styles and templates that come with Lumbix. */
export const houseStyles: HouseStyle[] = [orrinVale as HouseStyle];
export const templates = [glasshouseQuote, fullProposal, depositInvoice] as unknown as Template[];
