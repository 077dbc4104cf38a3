import { expect, it } from 'vitest';
import { pageEnds, paperOf } from './paper';

it('paper lies or stands', () => {
  expect(paperOf({ size: 'a4' })).toEqual({ width: 210, height: 297 });
  expect(paperOf({ size: 'letter', landscape: true })).toEqual({ width: 279.4, height: 215.9 });
});

it('pages end where they are full, and are counted anew where one is begun on purpose', () => {
  expect(pageEnds(250, [], 100)).toEqual([
    { number: 2, top: 100 },
    { number: 3, top: 200 },
  ]);
  expect(pageEnds(250, [40], 100)).toEqual([
    { number: 3, top: 140 },
    { number: 4, top: 240 },
  ]);
  expect(pageEnds(90, [], 100)).toEqual([]);
});
