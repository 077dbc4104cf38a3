import { expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import { demoSchema } from '../../tests/demo-snapshot';
import { Checker } from '../sheet/check';
import { checkContext } from './check';
import type { Block } from './blocks';
import type { Template } from './template';
import { clausePlaces, usesIn } from './where-used';

const quote = shipped.templates[0]!;
const used = (template: Template) =>
  usesIn(template, new Checker(checkContext(template, demoSchema, shipped.houseStyles)));
const paragraph = (id: string, words: string, ...formulas: string[]): Block => ({
  type: 'paragraph',
  attrs: { id },
  content: [
    { type: 'text', text: words },
    ...formulas.map((formula, at) => ({ type: 'value' as const, attrs: { id: `${id}-${at}`, formula } })),
  ],
});
const withBody = (...body: Block[]): Template => ({ ...quote, layout: { ...quote.layout, body } });

it('tells where figures are used: on the page and by other figures', () => {
  const { figures } = used(quote);
  expect(figures.total!.map(({ words }) => words)).toContain('the totals');
  expect(figures.tax_total).toContainEqual({ words: 'the figure “Total”', figure: 'total' });
  expect(Object.keys(figures)).toContain('lines.net');
});

it('tells fields of equal names apart by what they belong to', () => {
  const { fields } = used(
    withBody(paragraph('one', 'For ', 'deal.account.name'), paragraph('two', 'Offer ', 'deal.name', 'deal.name')),
  );
  expect(fields['account.name']).toContainEqual({ words: 'the paragraph “For …”', block: 'one' });
  // A place that uses it twice is one place.
  expect(fields.name!.filter(({ block }) => block === 'two')).toHaveLength(1);
  expect(fields.name).not.toContainEqual(expect.objectContaining({ block: 'one' }));
});

it('finds fields of items where their list is in scope, and where it is summed', () => {
  const { fields } = used(
    withBody(
      { type: 'forEach', attrs: { id: 'each', list: 'lines' }, content: [paragraph('in', 'Item ', 'quantity')] },
      paragraph('out', 'In all ', 'SUM(lines.quantity)'),
    ),
  );
  expect(fields['lines.quantity']!.map(({ block }) => block)).toEqual(expect.arrayContaining(['in', 'out']));
});

it('tells where clauses are put in, in sections too', () => {
  const template = withBody(
    { type: 'clause', attrs: { id: 'a', clause: 'terms' } },
    {
      type: 'whenSection',
      attrs: { id: 'when', when: 'true' },
      content: [
        { type: 'then', attrs: { id: 'then' }, content: [{ type: 'clause', attrs: { id: 'b', clause: 'crane' } }] },
      ],
    },
  );
  expect(used(template).clauses).toEqual({
    terms: [{ words: 'the clause “terms”', block: 'a' }],
    crane: [{ words: 'the clause “crane”', block: 'b' }],
  });
  expect(clausePlaces(template, 'crane')).toHaveLength(1);
  expect(clausePlaces(template, 'none')).toEqual([]);
});
