import fc from 'fast-check';
import { expect, it } from 'vitest';
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
