import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import { templateChanges } from './compare';
import type { Template } from './template';

const [quote] = shipped.templates as [Template, ...Template[]];
const table = quote.layout.body.find(({ type }) => type === 'lineTable')!;

/** The same content with its members in another order, as another program writes it. */
const reordered = <T>(content: T): T =>
  JSON.parse(
    JSON.stringify(content, (_key, value: unknown) =>
      typeof value === 'object' && value !== null && !Array.isArray(value)
        ? Object.fromEntries(Object.entries(value).reverse())
        : value,
    ),
  ) as T;

it.each(shipped.templates.map((template) => [template.name, template] as const))(
  '%s is the same as itself, in whatever order its file is written',
  (_, template) => {
    expect(templateChanges(template, reordered(template))).toEqual([]);
    expect(templateChanges(template, { ...template, $schema: '/template.schema.json' })).toEqual([]);
  },
);

it('any two templates differ, both ways alike', () => {
  const some = fc.constantFrom(...shipped.templates);
  fc.assert(
    fc.property(some, some, (one, other) => {
      const [there, back] = [templateChanges(one, other), templateChanges(other, one)];
      expect(there.length === 0).toBe(one === other);
      expect(there.flatMap(({ added }) => added).sort()).toEqual(back.flatMap(({ deleted }) => deleted).sort());
    }),
  );
});

describe('what differs is told by its name', () => {
  const [first, ...others] = quote.sheet.document;

  it.each<[string, Partial<Template>, object]>([
    ['its name', { name: 'Offer' }, { part: 'Template', changed: ['name'] }],
    [
      'a figure',
      { sheet: { ...quote.sheet, document: [{ ...first!, formula: '1' }, ...others] } },
      { part: 'Figures', changed: [first!.label] },
    ],
    ['a figure less', { sheet: { ...quote.sheet, document: others } }, { part: 'Figures', deleted: [first!.label] }],
    [
      'an edition more',
      { editions: [...quote.editions, { id: 'fr', label: 'Français', locale: 'fr' }] },
      { part: 'Editions', added: ['Français'] },
    ],
    [
      'a block less',
      { layout: { ...quote.layout, body: quote.layout.body.filter((block) => block !== table) } },
      { part: 'Page blocks', deleted: [expect.stringMatching(/^the table “/)] },
    ],
    [
      'another order',
      { layout: { ...quote.layout, body: [...quote.layout.body].reverse() } },
      { part: 'Template', changed: ['order of its parts'] },
    ],
  ])('%s', (_, change, expected) => {
    expect(templateChanges(quote, { ...quote, ...change })).toEqual([
      { added: [], changed: [], deleted: [], ...expected },
    ]);
  });
});
