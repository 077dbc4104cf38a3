import { deals, lineItems } from './deals';
import { accounts, contacts } from './parties';
import { products } from './products';
import type { CrmRecords } from './records';

/** Everything the demo CRM holds when it is new. */
export const demoRecords: CrmRecords = { accounts, contacts, products, deals, lineItems };
