import { describe, expect, it } from 'vitest';
import { awkwardness } from './awkward';

const ORDINARY = { texts: ['Vent renewal', 'Fen Nurseries'], amount: '1250.00', day: '2026-12-01' };

describe('how awkward a record is', () => {
  it('is nothing for one that has everything, of a usual size', () => {
    expect(awkwardness(ORDINARY)).toBe(0);
  });

  it.each([
    ['a blank text', { texts: ['Vent renewal', undefined] }, 2],
    ['an empty text', { texts: ['Vent renewal', ''] }, 2],
    ['neither amount nor day', { amount: null, day: null }, 4],
    ['an amount of nothing', { amount: '0.00' }, 3],
    ['a negative amount', { amount: '-12.50' }, 3],
    ['a very large amount', { amount: '1000000.00' }, 2],
    ['a long name', { texts: ['A glasshouse of a length that no column has'] }, 2],
    ['letters with accents', { texts: ['Café Ørsted'] }, 1],
    ['letters of another script', { texts: ['دفيئة'] }, 3],
  ])('grows with %s', (_, change, score) => {
    expect(awkwardness({ ...ORDINARY, ...change })).toBe(score);
  });
});
