import { expect, it } from 'vitest';
import { firstFree, idFor } from './first-free';

it('the first free name is the one after those that are taken without a gap', () => {
  const name = (count: number) => (count === 1 ? 'plan' : `plan-${count}`);
  expect(firstFree(name, [])).toBe('plan');
  expect(firstFree(name, ['plan', 'plan-2', 'plan-4'])).toBe('plan-3');
  expect(firstFree((count) => `step-${count}`, ['step-2'])).toBe('step-1');
});

it('an id is made of what something is called, and is no other’s', () => {
  const taken = [{ id: 'credit-notes' }, { id: 'credit-notes-2' }];
  expect(idFor('Credit notes', 'series', [])).toBe('credit-notes');
  expect(idFor('  Credit notes! ', 'series', taken)).toBe('credit-notes-3');
  expect(idFor('عروض', 'series', [])).toBe('series');
  expect(idFor('x'.repeat(200), 'series', [])).toHaveLength(60);
});
