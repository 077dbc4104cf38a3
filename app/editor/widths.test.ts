import fc from 'fast-check';
import { expect, it } from 'vitest';
import { evenWidths, moveWidth } from './widths';

it('columns without widths are all the same', () => {
  expect(evenWidths(null, 3)).toEqual([1, 1, 1]);
  expect(evenWidths([2, 1], 3)).toEqual([2, 1, 1]);
});

it('an edge that is moved makes one column wider and the next one narrower', () => {
  expect(moveWidth([1, 1, 2], 0, 0.1)).toEqual([1.4, 0.6, 2]);
  expect(moveWidth([1, 1, 2], 1, -0.125)).toEqual([1, 0.5, 2.5]);
});

it('no column gets lost, however far an edge is moved', () => {
  expect(moveWidth([1, 1], 0, 5)).toEqual([1.9, 0.1]);
  expect(moveWidth([1, 1], 0, -5)).toEqual([0.1, 1.9]);
});

it('the whole stays as it was, and every width can be stored', () => {
  const widths = fc.array(fc.integer({ min: 1, max: 10_000 }), { minLength: 2, maxLength: 12 });
  fc.assert(
    fc.property(widths, fc.nat(), fc.double({ min: -2, max: 2, noNaN: true }), (hundredths, where, by) => {
      const before = hundredths.map((each) => each / 100);
      const after = moveWidth(before, where % (before.length - 1), by);
      const sum = (all: readonly number[]) => all.reduce((total, each) => total + each, 0);
      expect(sum(after)).toBeCloseTo(sum(before), 6);
      expect(Math.min(...after)).toBeGreaterThan(0);
    }),
  );
});
