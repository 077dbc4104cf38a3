import type { Block } from './blocks';
import { describe, expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import { demoSchema } from '../../tests/demo-snapshot';
import { assemble, clausesOf } from './assemble';
import { faultsOf } from './gate';
import { everyBlock } from './walk';
import type { Template } from './template';
import { reworded, wordingDigest } from './wording';

const quote = shipped.templates[0]!;
const blockOf = (template: Pick<Template, 'layout'>, id: string) =>
  everyBlock(template.layout.body).find((block) => block.attrs.id === id);

describe.each(shipped.templates.map((each) => [each.id, each] as const))('the shipped %s, whole', (_, template) => {
  it('has all words in each edition, and no formula that does not check', () => {
    for (const { id } of template.editions)
      expect(assemble(template, shipped, id)).toMatchObject({ gaps: [], absent: [] });
    expect(faultsOf(template, shipped, demoSchema)).toEqual({ count: 0, faults: [] });
  });
});

describe('an edition', () => {
  it('says its own words about the same values', () => {
    const { template, gaps } = assemble(quote, shipped, 'nl');
    expect(gaps).toEqual([]);
    expect(blockOf(template, 'dear')).toMatchObject({
      content: [
        { text: 'Geachte ' },
        { attrs: { id: 'dear-name', formula: expect.stringContaining('salutation') } },
        { text: ', hartelijk dank voor uw aanvraag. Graag bieden wij u het volgende aan.' },
      ],
    });
    expect(template.plans[0]!.title).toBe('Offerte =[document.number], =[deal.name]');
    expect(blockOf(template, 'terms.list')).toMatchObject({
      content: [
        {
          type: 'listItem',
          content: [{ text: 'De prijzen zijn in ' }, { attrs: { id: 'terms.currency' } }, {}, {}, {}],
        },
        {},
        {},
      ],
    });
  });

  it('tells what it does not say yet, and what it said of an older text', () => {
    const { dear, ...words } = quote.editions[1]!.words!;
    const missing = { ...quote, editions: [quote.editions[0]!, { ...quote.editions[1]!, words }] };
    expect(assemble(missing, shipped, 'nl').gaps).toEqual([{ block: 'dear', kind: 'missing' }]);
    expect(blockOf(assemble(missing, shipped, 'nl').template, 'dear')).toMatchObject({
      content: [{ text: 'Dear ' }, {}, {}],
    });
    const outdated = {
      ...quote,
      editions: [
        quote.editions[0]!,
        { ...quote.editions[1]!, words: { ...words, dear: { ...dear!, of: '000000000000' } } },
      ],
    };
    expect(assemble(outdated, shipped, 'nl').gaps).toEqual([{ block: 'dear', kind: 'outdated' }]);
  });

  it('of the same language needs no words; one that is not there falls back to the first', () => {
    expect(assemble(quote, shipped, 'little-vale').gaps).toEqual([]);
    expect(assemble(quote, shipped, 'fr').edition.id).toBe('en');
  });

  it('leaves out blocks, and brings others in their place', () => {
    const rule: Block = { type: 'divider', attrs: { id: 'own' } };
    const template: Template = {
      ...quote,
      editions: [{ ...quote.editions[0]!, without: ['heated'], instead: { crane: [rule] } }],
    };
    const whole = assemble(template, shipped, 'en').template;
    expect([blockOf(whole, 'heated'), blockOf(whole, 'crane'), blockOf(whole, 'own')]).toEqual([
      undefined,
      undefined,
      rule,
    ]);
  });

  it('takes another brand’s house style with it', () => {
    expect(assemble(quote, shipped, 'little-vale').houseStyle).toMatchObject({
      id: 'little-vale',
      table: 'bands',
      composition: 'hanging',
    });
    expect(assemble(quote, shipped, 'en', 'little-vale').houseStyle.id).toBe('little-vale');
  });
});

describe('a house style', () => {
  it('gives every template its stationery; a change of it reaches them all, but for what one has otherwise', () => {
    const changed = {
      ...shipped,
      houseStyles: shipped.houseStyles.map((style) => ({
        ...style,
        table: 'dense' as const,
        letterhead: { header: [], footer: [] },
      })),
    };
    const styles = shipped.templates.map((template) => assemble(template, changed, 'en'));
    expect(styles.map(({ template }) => template.layout.header)).toEqual(shipped.templates.map(() => []));
    const own = shipped.templates.map(({ style }) => style?.table ?? 'dense');
    expect(styles.map(({ houseStyle }) => houseStyle.table)).toEqual(own);
    expect(own).toContain('bands');
  });

  it('that is not there is told', () => {
    expect(assemble({ ...quote, houseStyle: 'gone' }, shipped, 'en').absent).toEqual([
      { what: 'house style', id: 'gone' },
    ]);
  });
});

it('clauses are found in sections too, and told apart from the template’s own blocks', () => {
  expect(clausesOf(quote)).toEqual(['terms-of-sale']);
  expect(assemble(quote, { ...shipped, clauses: [] }, 'en').absent).toEqual([{ what: 'clause', id: 'terms-of-sale' }]);
});

it('a wording keeps the formulas of its source by number, and loses no other', () => {
  const source = { text: 'VAT =[item.rate] on =[item.base]' };
  expect(reworded(source, { of: wordingDigest(source), text: 'على =[2] =[1]=[3]' })).toEqual({
    text: 'على =[item.base] =[item.rate]',
  });
});
