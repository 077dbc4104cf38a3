import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import glasshouseQuote from '../../demo/templates/glasshouse-quote.json';
import { demoRecords } from '../../demo/crm/index';
import { shipped } from '../../demo/shipped';
import { CALCULATIONS } from '../calculations';
import { randomDeals } from '../../tests/agreement/random-deals';
import { demoSchema, demoSnapshot, snapshotFrom, withFields } from '../../tests/demo-snapshot';
import { propertyRuns } from '../../tests/property-runs';
import { Decimal } from '../money/decimal';
import type { RecordSnapshot } from '../record/snapshot';
import { Sheet } from '../sheet/sheet';
import { documentRoots } from '../template/roots';
import type { Template } from '../template/template';
import { withTried } from '../template/what-if';
import { workBack, type Reaching } from './work-back';

const QUOTE = (glasshouseQuote as unknown as Template).sheet;
/** With a discount on the whole, in percent and in money. */
const CHAINED = CALCULATIONS.find(({ id }) => id === 'chained-discounts')!.sheet;
const { company } = shipped.houseStyles[0]!;
const sheetOver = (snapshot: RecordSnapshot, sheet = QUOTE) =>
  new Sheet({
    sheet,
    schema: demoSchema,
    snapshot,
    root: 'deal',
    roots: documentRoots({ company, issueDate: '2026-11-27', edition: 'en', locale: 'en-GB' }),
    locale: 'en-GB',
    today: 20_784,
    registered: [],
  });
const totalOf = (snapshot: RecordSnapshot, sheet = QUOTE) => {
  const { value } = sheetOver(snapshot, sheet).figure('total');
  return value.type === 'money' ? value.value : undefined;
};
const back = (snapshot: RecordSnapshot, wanted: string, sheet = QUOTE) =>
  workBack(sheetOver(snapshot, sheet), 'total', Decimal.of(wanted));
/** The total with a proposed value, computed from nothing. */
const setting = (snapshot: RecordSnapshot, { path, after }: Pick<Reaching, 'path' | 'after'>, sheet = QUOTE) =>
  totalOf(withTried(snapshot, [{ path, value: after }], demoSchema).record, sheet);

describe('working back from a total', () => {
  const deal = demoSnapshot('D-1188');

  it('finds the discount of a deal, by hand: 100,000.00 of 115,998.72 is 13.79 % less', () => {
    const { now, currency, ways } = back(deal, '100000.00', CHAINED)!;
    expect([now, currency]).toEqual(['115998.72', 'GBP']);
    const of = (path: string) => ways.find((each) => each.path === path)!;
    expect(of('deal.discount_percent')).toMatchObject({ label: 'Discount', before: '', after: '13.79' });
    // 96,665.60 less 13,332.27 is 83,333.33, with a fifth of it on top 100,000.00.
    expect(of('deal.discount_amount')).toMatchObject({ after: '13332.27', total: '100000', difference: '0' });
  });

  it('tells exact ways first, never a rate of tax, and each with what it does', () => {
    const { ways } = back(deal, '100000.00')!;
    const distances = ways.map(({ difference }) => Decimal.of(difference).abs().toNumber());
    expect(distances).toEqual([...distances].sort((one, other) => one - other));
    expect(ways.some(({ path }) => path.includes('tax_rate'))).toBe(false);
    expect(ways.some(({ path }) => /unit_price|quantity|discount$/.test(path))).toBe(true);
    for (const way of ways) expect(setting(deal, way)?.toFixed()).toBe(way.total);
  });

  it('takes the rounder of values that come to the same', () => {
    const [line] = deal.fields.lines as RecordSnapshot[];
    const alone = withFields(deal, {
      lines: [
        withFields(line!, {
          quantity: { number: '1' },
          discount: null,
          unit_price: { amount: '100', currency: 'GBP' },
        }),
      ],
    });
    const price = back(alone, '60.00')!.ways.find(({ path }) => path.endsWith('unit_price'))!;
    expect(price).toMatchObject({ before: '100', after: '50', total: '60', difference: '0' });
  });

  it('says that nothing reaches what cannot be reached, or that cannot be computed', () => {
    expect(back(deal, '-5')!.ways).toEqual([]);
    expect(back(demoSnapshot('D-1202'), '100')).toBeUndefined();
    expect(workBack(sheetOver(deal), 'filed_before', Decimal.ONE)).toBeUndefined();
  });

  it('keeps its promise over random deals and sums: what is proposed gives the total that was told, to the cent', () => {
    const records = randomDeals(300, 20_261_127);
    let ways = 0;
    let exact = 0;
    fc.assert(
      fc.property(
        fc.constantFrom(...records.deals.map(({ id }) => id)),
        fc.integer({ min: 40, max: 140 }),
        (id, share) => {
          const snapshot = snapshotFrom(records, id);
          const total = totalOf(snapshot);
          if (!total || total.sign() <= 0) return;
          const wanted = total
            .times(Decimal.of(String(share)))
            .shifted(-2)
            .round(0);
          const worked = workBack(sheetOver(snapshot), 'total', wanted)!;
          for (const way of worked.ways) {
            ways++;
            if (way.difference === '0') exact++;
            expect({ id, way, total: setting(snapshot, way)?.toFixed() }).toMatchObject({ total: way.total });
            expect(Decimal.of(way.total).minus(wanted).toFixed()).toBe(way.difference);
          }
        },
      ),
      { numRuns: propertyRuns(300) },
    );
    expect(ways).toBeGreaterThan(300);
    expect(exact).toBeGreaterThan(20);
  }, 120_000);

  it('finds an exact discount wherever there is one', () => {
    for (const { id } of demoRecords.deals.slice(0, 6))
      for (const after of ['0.5', '12.34', '50', '99.99']) {
        const wanted = setting(demoSnapshot(id), { path: 'deal.discount_percent', after }, CHAINED);
        if (!wanted) continue;
        const { ways } = back(demoSnapshot(id), wanted.toFixed(), CHAINED)!;
        const found = ways.find(({ path }) => path === 'deal.discount_percent');
        expect({ id, after, difference: found?.difference }).toEqual({ id, after, difference: '0' });
      }
  });
});
