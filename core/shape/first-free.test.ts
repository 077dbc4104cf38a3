import { expect, it } from 'vitest';
import { firstFree } from './first-free';

it('the first free name is the one after those that are taken without a gap', () => {
  const name = (count: number) => (count === 1 ? 'plan' : `plan-${count}`);
  expect(firstFree(name, [])).toBe('plan');
  expect(firstFree(name, ['plan', 'plan-2', 'plan-4'])).toBe('plan-3');
  expect(firstFree((count) => `step-${count}`, ['step-2'])).toBe('step-1');
});
