import { expect, it } from 'vitest';
import { checkContext } from '../template/check';
import { shipped } from '../../demo/shipped';
import { demoSchema } from '../../tests/demo-snapshot';
import { checkerFor } from './checkers';

const template = shipped.templates[0]!;
const contextOf = (sheet = template.sheet, schema = demoSchema) =>
  checkContext({ sheet: structuredClone(sheet), record: template.record }, schema);

it('goes on with what was found for the same figures and fields, and begins anew for others', () => {
  const checker = checkerFor(contextOf());
  expect(checkerFor(contextOf())).toBe(checker);
  expect(checkerFor(contextOf({ ...template.sheet, rounding: 'half-even' }))).not.toBe(checker);
  expect(checkerFor(contextOf(template.sheet, structuredClone(demoSchema)))).not.toBe(checker);
});

it('forgets a checker after some use, with all formulas that it was asked for', () => {
  const checker = checkerFor(contextOf());
  let uses = 0;
  while (checkerFor(contextOf()) === checker && uses < 1_000) uses++;
  expect(uses).toBeLessThan(1_000);
});
