import { describe, expect, it } from 'vitest';
import { CALCULATIONS } from '../calculations';
import { demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { shipped } from '../../demo/shipped';
import { compose } from './compose';

const bridge = (calculation: string, deal: string) => {
  const { sheet } = CALCULATIONS.find(({ id }) => id === calculation)!;
  const layout = { ...shipped.templates[0]!.layout, header: [], followingHeader: [], footer: [], body: [] };
  const template = { ...shipped.templates[0]!, sheet, layout, checks: [] };
  const context = {
    schema: demoSchema,
    pins: shipped,
    issueDate: '2026-11-23',
    edition: 'en',
    plan: 'file',
    registered: [],
  };
  return (
    compose(template, demoSnapshot(deal), context).bridge?.map(({ kind, label, value, after }) => [
      kind,
      label,
      value,
      after,
    ]) ?? null
  );
};

describe('the price bridge', () => {
  it('leads from list price over discounts and tax to the total', () => {
    expect(bridge('net-prices', 'D-1187')).toEqual([
      ['level', 'List value', '16696', '16696'],
      ['change', 'Discounts', '-1332', '15364'],
      ['level', 'Subtotal', '15364', '15364'],
      ['change', 'Tax', '3072.8', '18436.8'],
      ['level', 'Total', '18436.8', '18436.8'],
    ]);
  });

  it('takes allowances off and puts charges on', () => {
    expect(bridge('allowances-and-charges', 'D-1213')?.map(([kind, label, , after]) => [kind, label, after])).toEqual([
      ['level', 'Subtotal', '81104'],
      ['change', 'Allowances', '78420.88'],
      ['change', 'Freight', '79060.88'],
      ['level', 'Net total', '79060.88'],
      ['change', 'Tax', expect.any(String)],
      ['level', 'Total', expect.any(String)],
    ]);
  });

  it('goes on to what is paid in cash', () => {
    expect(bridge('cash-rounding', 'D-1217')?.slice(-3)).toEqual([
      ['level', 'Total', '2497.41', '2497.41'],
      ['change', 'Rounding', '-0.01', '2497.4'],
      ['level', 'Payable', '2497.4', '2497.4'],
    ]);
  });

  it('is not drawn where a figure has failed or nothing changes on the way', () => {
    expect(bridge('net-prices', 'D-1202')).toBeNull();
    expect(bridge('net-prices', 'D-1201')).toBeNull();
  });
});
