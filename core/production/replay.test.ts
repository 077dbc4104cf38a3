import { describe, expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import { demoPictures, demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { unreadPaths } from '../record/unread';
import { readsOf } from '../template/reads';
import type { Template } from '../template/template';
import { composing } from './compose';
import { outcomeChanges, outcomeOf } from './replay';
import { groupedChanges } from './replay-groups';

const quote = shipped.templates.find(({ id }) => id === 'glasshouse-quote')!;
const outcome = (template: Template, deal = 'D-1187', pages = 1) =>
  outcomeOf(
    composing(template, demoSnapshot(deal), {
      schema: demoSchema,
      pins: shipped,
      issueDate: '2026-11-27',
      available: demoPictures,
    }),
    pages,
  );
const withFigure = (name: string, formula: string): Template => ({
  ...quote,
  sheet: {
    ...quote.sheet,
    document: quote.sheet.document.map((each) => (each.name === name ? { ...each, formula } : each)),
  },
});

describe('what came out otherwise', () => {
  it('is nothing for the same template', () => expect(outcomeChanges(outcome(quote), outcome(quote))).toEqual([]));

  it('is a sum, and what follows from it, with how far it moved', () => {
    const changes = outcomeChanges(
      outcome(quote),
      outcome(withFigure('tax_total', 'SUM(tax_rows.tax_amount) + AMOUNT(0.02)')),
    );
    expect(changes.filter(({ of }) => of === 'figure')).toEqual([
      expect.objectContaining({ what: 'VAT', by: '0.02' }),
      { of: 'figure', what: 'Total', before: '18,436.80\u00a0GBP', after: '18,436.82\u00a0GBP', by: '0.02' },
    ]);
    expect(changes.some(({ of }) => of === 'finding')).toBe(true);
  });

  it('is a section that prints, or no more, and the number of pages', () => {
    const body = quote.layout.body.filter(({ attrs }) => attrs.id !== 'crane');
    const without = { ...quote, layout: { ...quote.layout, body } };
    expect(outcomeChanges(outcome(quote), outcome(without, 'D-1187', 2))).toEqual([
      expect.objectContaining({ of: 'section', before: 'printed', after: 'left out' }),
      { of: 'pages', what: 'Pages', before: '1', after: '2' },
    ]);
  });

  it('is grouped by its cause, with the farthest that an amount moved', () => {
    const change = (by: string) => [{ of: 'figure' as const, what: 'Subtotal', before: '1', after: '2', by }];
    const [group] = groupedChanges([
      { document: 'Q-1', changes: change('0.01') },
      { document: 'Q-2', changes: [] },
      { document: 'Q-3', changes: change('0.02') },
    ]);
    expect(group).toMatchObject({ what: 'Subtotal', most: '0.02' });
    expect(group!.documents.map(({ document }) => document)).toEqual(['Q-1', 'Q-3']);
  });
});

it('names what a record was not read with, and nothing that is blank', () => {
  const reads = readsOf(quote, shipped, demoSchema);
  const deal = demoSnapshot('D-1187');
  expect(unreadPaths(reads, deal)).toEqual([]);
  const { heating: _, ...fields } = deal.fields;
  expect(unreadPaths(reads, { ...deal, fields })).toEqual(['heating']);
  const { account: __, ...others } = deal.fields;
  expect(unreadPaths(reads, { ...deal, fields: { ...others, contact: null } })).toEqual(['account']);
});
