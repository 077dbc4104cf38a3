import type { DocumentChange } from '../core/production/document-change';
import { deals, lineItems } from './crm/deals';

/** Something that a person of the demo did with a record before today. */
export interface Act {
  /** When: 0 as the deal was created, 1 today. */
  share: number;
  /** ISO 8601 day from which it is counted. */
  since: string;
  record: string;
  /** Who: the first name of one of the demo's people. */
  by: 'Tamar' | 'Rufus' | 'Ines';
  does: Deed;
}

export type Deed =
  /** `why`: the reason for which findings are skipped. */
  | { type: 'file'; template: string; why?: string }
  /** Begins a document and leaves it in hand, with changes for it alone. */
  | { type: 'begin'; template: string; changes: readonly { change: DocumentChange; label: string }[] }
  /** Has what was filed last on the record be void. */
  | { type: 'void'; reason: string }
  /** Files, and has it be void before its file was put on the record: its number stays void. */
  | { type: 'giveUp'; template: string; reason: string }
  /** Changes a record on its page in the CRM. */
  | { type: 'change'; area: 'deals' | 'lineitems'; id: string; field: string; to: string };

type Told = [share: number, by: Act['by'], does: Deed];

const file = (template: string, why?: string): Deed => ({ type: 'file', template, why });
const quote = (why?: string): Deed => file('glasshouse-quote', why);
const stage = (id: string, to: string): Deed => ({ type: 'change', area: 'deals', id, field: 'stage', to });
/** The price of a deal's first line, as it is or `times` as much. */
const price = (deal: string, times = 1): Deed => {
  const { id, unit_price: now } = lineItems.find((each) => each.deal_id === deal)!;
  const was = times === 1 ? now : (Number(now) * times).toFixed(2);
  return { type: 'change', area: 'lineitems', id, field: 'unit_price', to: String(was) };
};

/** What happened to a deal, in its order. */
function trailOf(deal: string, ...told: Told[]): Act[] {
  const { created_on: since } = deals.find(({ id }) => id === deal)!;
  return told.map(([share, by, does]) => ({ share, since, record: deal, by, does }));
}

const QUOTED = 'Agreed with the customer by telephone.';

/** What people of the demo did: a paper trail for deals of every stage. At its end the CRM is as the demo has it. */
export const history: readonly Act[] = [
  // Quoted twice: a price rose between.
  ...trailOf(
    'D-1188',
    [0.12, 'Rufus', price('D-1188', 0.95)],
    [0.14, 'Rufus', quote(QUOTED)],
    [0.5, 'Rufus', price('D-1188')],
    [0.52, 'Tamar', quote('The customer knows of the new price.')],
  ),
  ...trailOf('D-1192', [0.3, 'Rufus', quote(QUOTED)]),
  // Three revisions.
  ...trailOf(
    'D-1220',
    [0.18, 'Rufus', price('D-1220', 1.06)],
    [0.2, 'Rufus', quote(QUOTED)],
    [0.38, 'Rufus', price('D-1220', 1.02)],
    [0.4, 'Rufus', quote('A second offer, as agreed on site.')],
    [0.66, 'Rufus', price('D-1220')],
    [0.68, 'Tamar', quote('The last offer, as agreed by letter.')],
  ),
  ...trailOf('D-1237', [0.42, 'Tamar', quote()]),
  ...trailOf('D-1243', [0.28, 'Tamar', quote()]),
  ...trailOf('D-1250', [0.36, 'Rufus', quote()]),
  // Given up before it was sent: the number is void.
  ...trailOf(
    'D-1241',
    [0.3, 'Rufus', { type: 'giveUp', template: 'glasshouse-quote', reason: 'Made for the wrong range.' }],
    [0.32, 'Rufus', quote()],
  ),
  ...trailOf('D-1211', [0.7, 'Tamar', file('full-proposal', 'The board wants the whole scope in one document.')]),
  // Won, and confirmed.
  ...trailOf('D-1261', [0.5, 'Rufus', file('order-confirmation')], [0.56, 'Ines', file('deposit-invoice')]),
  // An invoice that went to the wrong place, and the one in its stead.
  ...trailOf(
    'D-1245',
    [0.62, 'Ines', file('deposit-invoice')],
    [0.64, 'Ines', { type: 'void', reason: 'Sent to an address that has changed.' }],
    [0.66, 'Ines', file('deposit-invoice', 'The one before is void.')],
  ),
  ...trailOf('D-1264', [0.7, 'Tamar', file('service-agreement')]),
  // Delivered, and not invoiced to its end.
  ...trailOf('D-1224', [0.4, 'Ines', file('deposit-invoice')], [0.72, 'Rufus', file('delivery-note')]),
  // A deposit that was credited, and billed anew.
  ...trailOf(
    'D-1246',
    [0.44, 'Ines', file('deposit-invoice')],
    [0.52, 'Ines', file('credit-note')],
    [0.54, 'Ines', file('deposit-invoice')],
  ),
  // From the first quote to the receipt.
  ...trailOf(
    'D-1262',
    [0.04, 'Rufus', stage('D-1262', 'Site visit')],
    [0.06, 'Rufus', quote()],
    [0.2, 'Rufus', stage('D-1262', 'Won')],
    [0.22, 'Rufus', file('order-confirmation')],
    [0.26, 'Ines', file('deposit-invoice')],
    [0.6, 'Rufus', stage('D-1262', 'Delivered')],
    [0.62, 'Rufus', file('delivery-note')],
    [0.68, 'Ines', file('final-invoice')],
    [0.9, 'Ines', file('receipt')],
  ),
  // In hand: begun, and not filed yet.
  ...trailOf('D-1215', [
    0.95,
    'Rufus',
    {
      type: 'begin',
      template: 'glasshouse-quote',
      changes: [{ change: { type: 'value', path: 'deal.validity_days', value: '14' }, label: 'Validity in days' }],
    },
  ]),
  ...trailOf('D-1248', [
    0.97,
    'Tamar',
    {
      type: 'begin',
      template: 'full-proposal',
      changes: [{ change: { type: 'value', path: 'deal.deposit_percent', value: '40' }, label: 'Deposit' }],
    },
  ]),
];
