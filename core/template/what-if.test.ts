import { describe, expect, it } from 'vitest';
import { demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { isRecord, isRecordList } from '../record/snapshot';
import { withTried } from './what-if';

const deal = demoSnapshot('D-1187');
const tried = (path: string, value: string) => withTried(deal, [{ path, value }], demoSchema);
const lines = (record: typeof deal) => {
  const all = record.fields.lines!;
  return isRecordList(all) ? all : [];
};

describe('values that are tried', () => {
  it('stand in place of a field’s own, of related records and of lines too', () => {
    expect(tried('deal.heating', 'floor').record.fields.heating).toBe('floor');
    const account = tried('deal.account.country', 'NL').record.fields.account!;
    expect(isRecord(account) && account.fields.country).toBe('NL');
    const { id } = lines(deal)[1]!;
    const changed = tried(`deal.lines{${id}}.quantity`, '7').record;
    expect(lines(changed)[1]!.fields.quantity).toEqual({ number: '7' });
    expect(lines(changed)[0]).toBe(lines(deal)[0]);
  });

  it('leave the record itself as it is', () => {
    const before = JSON.stringify(deal);
    tried('deal.heating', 'floor');
    expect(JSON.stringify(deal)).toBe(before);
  });

  it('keep the currency that the money has', () => {
    const { id } = lines(deal)[0]!;
    expect(lines(tried(`deal.lines{${id}}.unit_price`, '12.5').record)[0]!.fields.unit_price).toEqual({
      amount: '12.5',
      currency: 'GBP',
    });
  });

  it('take the currency of other money where the record itself was read with none', () => {
    const [line] = lines(deal);
    const bare = {
      ...deal,
      fields: { ...deal.fields, lines: [{ ...line!, fields: { unit_price: null } }, ...lines(deal).slice(1)] },
    };
    const { record } = withTried(bare, [{ path: `deal.lines{${line!.id}}.unit_price`, value: '12.5' }], demoSchema);
    expect(lines(record)[0]!.fields.unit_price).toEqual({ amount: '12.5', currency: 'GBP' });
    const nothing = { ...line!, fields: { unit_price: null } };
    expect(withTried(nothing, [{ path: 'line.unit_price', value: '1' }], demoSchema).record.fields.unit_price).toEqual({
      amount: '1',
      currency: null,
    });
  });

  it('are blank where nothing is typed', () => {
    expect(tried('deal.order_number', '').record.fields.order_number).toBeNull();
    expect(tried('deal.site_works', '').record.fields.site_works).toEqual({ choices: [] });
  });

  it.each([
    ['deal.heating', 'stove', 'Heating is one of'],
    ['deal.nothing', 'x', 'There is no “deal.nothing” to be tried.'],
    ['deal.account', 'x', 'There is no “deal.account” to be tried.'],
    ['deal.lines{none}.quantity', '1', 'There is no “deal.lines{none}.quantity” to be tried.'],
    ['', 'x', 'to be tried'],
  ])('say what does not fit: %s', (path, value, sentence) => {
    const { record, faults } = tried(path, value);
    expect(faults).toEqual([expect.stringContaining(sentence)]);
    expect(record).toBe(deal);
  });
});
