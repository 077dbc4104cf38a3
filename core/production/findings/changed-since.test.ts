import { describe, expect, it } from 'vitest';
import { demoSchema, demoSnapshot } from '../../../tests/demo-snapshot';
import { changedSince } from './changed-since';

describe('what changed on a record since its document was looked at', () => {
  const record = { snapshot: demoSnapshot('D-1187'), schema: demoSchema, called: 'deal' };
  const told = (...changes: Parameters<typeof changedSince>[0]) => changedSince(changes, record, ['v'])?.sentence;
  const price = 'deal.lines{D-1187-1}.unit_price';

  it('is no finding where nothing did', () => {
    expect(changedSince([], record, [])).toBeUndefined();
  });

  it('is told with both values, with blanks, with what is new and what is not used any more', () => {
    expect(told({ path: price, before: '10 GBP', after: '12.5 GBP' })).toMatch(
      /^Line 1, .+: unit price was £10\.00 and is £12\.50 now\.$/,
    );
    expect(told({ path: 'deal.order_number', before: '', after: 'PO-1' })).toBe(
      'Purchase-order number was blank and is PO-1 now.',
    );
    expect(told({ path: 'deal.order_number', before: null, after: 'PO-1' })).toBe(
      'Purchase-order number is new: PO-1.',
    );
    expect(told({ path: 'deal.order_number', before: 'PO-1', after: null })).toBe(
      'Purchase-order number is not used any more.',
    );
  });

  it('is told once for all that formulas decided, and five changes one by one', () => {
    const decided = ['when a', 'when b'].map((path) => ({ path, before: 'true', after: 'false' }));
    expect(told(...decided)).toBe('It changed which sections are printed.');
    expect(told({ path: 'deal.lines[not optional]', before: '["1"]', after: '["1","2"]' })).toBe(
      'It changed which line items are included.',
    );
    const fields = ['name', 'stage', 'owner', 'snow_zone', 'wind_zone', 'incoterm', 'site_address'];
    const many = told(...fields.map((field) => ({ path: `deal.${field}`, before: 'a', after: 'b' })));
    expect(many!.match(/ was a and is b now\./g)).toHaveLength(5);
    expect(many).toMatch(/And 2 more\.$/);
  });

  it('can be skipped with a reason that is ready', () => {
    const finding = changedSince([{ path: price, before: '1 GBP', after: '2 GBP' }], record, ['v']);
    expect(finding).toMatchObject({
      severity: 'warns',
      values: ['v'],
      ready: { reason: expect.any(String) as string },
    });
  });
});
