import { expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import type { Block } from './blocks';
import { templateDifferences } from './differences';
import type { Template } from './template';
import { mapBlocks } from './walk';

const quote = shipped.templates.find(({ id }) => id === 'glasshouse-quote')!;
const withBody = (change: (block: Block) => Block): Template => ({
  ...quote,
  layout: { ...quote.layout, body: mapBlocks(quote.layout.body, change) },
});

it('of a template and itself are none', () => expect(templateDifferences(quote, structuredClone(quote))).toEqual([]));

it('tell a figure’s other formula', () => {
  const document = quote.sheet.document.map((each) =>
    each.name === 'total' ? { ...each, formula: 'subtotal' } : each,
  );
  expect(templateDifferences(quote, { ...quote, sheet: { ...quote.sheet, document } })).toEqual([
    {
      part: 'Figures',
      kind: 'changed',
      name: 'Total',
      details: [{ what: 'formula', before: 'subtotal + tax_total', after: 'subtotal' }],
    },
  ]);
});

it('tell another condition, and where it stands', () => {
  const other = withBody((block) =>
    block.type === 'whenSection' && block.attrs.id === 'crane'
      ? { ...block, attrs: { ...block.attrs, when: 'total > 3' } }
      : block,
  );
  expect(templateDifferences(quote, other)).toEqual([
    expect.objectContaining({
      part: 'Page blocks',
      kind: 'changed',
      block: 'crane',
      details: [{ what: 'condition', before: '"crane" in deal.site_works', after: 'total > 3' }],
    }),
  ]);
});

it('tell a column that is added, and one whose heading is another', () => {
  const other = withBody((block) => {
    if (block.type !== 'lineTable' || block.attrs.id !== 'lines') return block;
    const [first, ...rest] = block.attrs.columns;
    const added = { id: 'own', heading: 'Own', formula: 'sku', align: 'start' as const, width: 'content' as const };
    return { ...block, attrs: { ...block.attrs, columns: [first!, added, ...rest] } };
  });
  const [found] = templateDifferences(quote, other);
  expect(found!.details).toEqual(
    expect.arrayContaining([
      { what: 'column “Own”: formula', after: 'sku' },
      expect.objectContaining({ what: 'order of the columns' }),
    ]),
  );
});

it('tell other words, with values by their formulas; and what is added and deleted', () => {
  const written = (text: string): Block => ({
    type: 'paragraph',
    attrs: { id: 'own' },
    content: [
      { type: 'text', text },
      { type: 'value', attrs: { id: 'own-value', formula: 'deal.name' } },
    ],
  });
  const put = (block: Block): Template => ({
    ...quote,
    layout: { ...quote.layout, body: [...quote.layout.body, block] },
  });
  const [changed] = templateDifferences(put(written('For ')), put(written('To ')));
  expect(changed!.details).toEqual([{ what: 'words', before: 'For =[deal.name]', after: 'To =[deal.name]' }]);
  expect(templateDifferences(quote, put(written('For ')))[0]).toMatchObject({ kind: 'added', block: 'own' });
  expect(templateDifferences(put(written('For ')), quote)[0]).toMatchObject({ kind: 'deleted', block: 'own' });
});
