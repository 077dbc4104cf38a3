import fc from 'fast-check';
import { expect, it } from 'vitest';
import { demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { describePath } from './describe';
import { usedChanges, usedDigest } from './used';

it('has the same digest whatever the order of reading', () => {
  fc.assert(
    fc.property(fc.dictionary(fc.string(), fc.string()), (used) => {
      const reversed = Object.fromEntries(Object.entries(used).reverse());
      expect(usedDigest(reversed)).toBe(usedDigest(used));
    }),
  );
});

it('lists changes exactly when the digests differ', () => {
  const used = fc.dictionary(fc.constantFrom('a', 'b', 'c'), fc.constantFrom('1', '2'));
  fc.assert(
    fc.property(used, used, (before, after) => {
      expect(usedChanges(before, after).length === 0).toBe(usedDigest(before) === usedDigest(after));
    }),
  );
});

it.each([
  ['deal.name', 'name'],
  ['deal.account.city', 'account: city'],
  ['deal.lines{D-1187-1}.unit_price', 'Line 1, Vent motor VM-48, 24 V: unit price'],
  ['deal.lines{gone}.unit_price', 'a line that is gone (gone)'],
  ['deal.lines[not optional]', 'which lines are included'],
  ['when heated', 'which sections are printed'],
])('tells people what %s is', (path, words) => {
  expect(describePath(path, demoSnapshot('D-1187'), demoSchema).toLowerCase()).toContain(words.toLowerCase());
});
