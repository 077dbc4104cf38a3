import { openByInvoice, type RegisteredDocument } from '../../formula/functions/register';
import type { Meanings } from '../../formula/meanings';
import { Decimal } from '../../money/decimal';
import { formatMoney } from '../../money/format';
import { INTERFACE_LOCALE } from '../../words/interface';
import type { Finding } from './finding';

const stops = (id: string, sentence: string): Finding => ({
  id,
  severity: 'stops',
  title: 'More is credited than was asked',
  sentence,
  values: [],
});

/**
 * What a credit note takes off that no invoice asks: each invoice that it names (EN 16931, BT-25) is one of the record, and no more of it
 * is credited than is open of it.
 */
export function overCredited(meanings: Meanings, registered: readonly RegisteredDocument[]): Finding[] {
  const open = openByInvoice(registered);
  const credited = new Map<string, Decimal>();
  let currency = '';
  for (const { values } of meanings.rows) {
    const { 'preceding-invoice': invoice, 'line-net': net, 'credited-tax': tax } = values;
    if (invoice === undefined) continue;
    currency = net?.currency ?? currency;
    const sum = [net, tax].reduce((all, each) => all.plus(Decimal.of(each?.value ?? '0')), Decimal.ZERO);
    credited.set(invoice, (credited.get(invoice) ?? Decimal.ZERO).plus(sum));
  }
  return [...credited].flatMap(([invoice, sum]) => {
    const left = open.get(invoice);
    if (left === undefined)
      return stops(
        `credits ${invoice}`,
        `No invoice ${invoice} was filed for this record, or it is void. Credit one that counts.`,
      );
    if (sum.comparedTo(left) <= 0) return [];
    const [asked, taken] = [left, sum].map((each) => formatMoney(each, currency, INTERFACE_LOCALE));
    return stops(
      `credits ${invoice}`,
      `${asked} are open of invoice ${invoice}, and this credits ${taken}. Credit less.`,
    );
  });
}
