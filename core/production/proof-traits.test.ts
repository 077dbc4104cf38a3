import { expect, it } from 'vitest';
import { demoRecords } from '../../demo/crm/index';
import { shipped } from '../../demo/shipped';
import { demoPictures, demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { mostDifferentBy } from '../record/differ';
import { compose } from './compose';
import { proofTraits } from './proof-traits';

const quote = shipped.templates.find(({ id }) => id === 'glasshouse-quote')!;
const composed = (deal: string) =>
  compose(quote, demoSnapshot(deal), {
    schema: demoSchema,
    pins: shipped,
    issueDate: '2026-11-27',
    available: demoPictures,
  });
const traits = (deal: string) => [...proofTraits(composed(deal))];

it('tell documents apart by what prints: sections, rows, currency, edition', () => {
  expect(traits('D-1187')).toEqual(expect.arrayContaining(['section crane', 'rows 2^2', 'currency GBP', 'edition en']));
  expect(traits('D-1197')).toEqual(expect.arrayContaining(['left out crane', 'currency CHF']));
  expect(traits('D-1203')).toContain('rows 2^7');
});

it('choose records that show every section, if any record does', () => {
  const deals = demoRecords.deals.map(({ id }) => ({ id, traits: traits(id) }));
  const chosen = mostDifferentBy(deals, 10, (each) => each.traits);
  const sectionsOf = (some: typeof deals) =>
    new Set(some.flatMap((each) => each.traits.filter((trait) => trait.startsWith('section '))));
  expect(sectionsOf(chosen)).toEqual(sectionsOf(deals));
  expect(new Set(chosen.map(({ id }) => id)).size).toBe(10);
});
