import { describe, expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import { demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { compose } from '../production/compose';
import { assemble, clausesOf } from './assemble';
import type { Block } from './blocks';
import { checkContext, renameInTemplate } from './check';
import type { Clause } from './clause';
import { placedFormulas } from './formulas';
import { faultsOf } from './gate';
import type { Pins, Template } from './template';

const quote = shipped.templates[0]!;
const sentences = (template: Template, pins: Pins = shipped) =>
  faultsOf(template, pins, demoSchema).faults.map(({ sentence }) => sentence);
const paragraph = (id: string, formula: string): Block => ({
  type: 'paragraph',
  attrs: { id },
  content: [{ type: 'value', attrs: { id: `${id}-value`, formula } }],
});
const withBody = (...blocks: Block[]): Template => ({
  ...quote,
  layout: { ...quote.layout, body: [...quote.layout.body, ...blocks] },
});
const clause = (id: string, ...content: Block[]): Clause => ({ id, name: id, content });
const pinned = (...clauses: Clause[]): Pins => ({ ...shipped, clauses: [...shipped.clauses, ...clauses] });

describe('the gate', () => {
  it.each<[string, Template, string]>([
    ['two blocks of one id', withBody({ type: 'divider', attrs: { id: 'title' } }), 'Two parts of the page are called “title”'],
    ['two values of one id', withBody(paragraph('one', '1'), { ...paragraph('two', '2'), content: [{ type: 'value', attrs: { id: 'one-value', formula: '2' } }] } as Block), 'Two parts of the page are called “one-value”'],
    ['a formula that cannot be read', { ...quote, sheet: { ...quote.sheet, document: [{ ...quote.sheet.document[0]!, formula: 'SUM(' }, ...quote.sheet.document.slice(1)] } }, `The figure “${quote.sheet.document[0]!.name}”:`],
    ['figures in a circle', { ...quote, sheet: { ...quote.sheet, document: [...quote.sheet.document, { name: 'a', label: 'A', formula: 'b', type: 'number' }, { name: 'b', label: 'B', formula: 'a', type: 'number' }] } }, '“a” is computed from itself, by way of “b”.'],
    ['two figures of one meaning', { ...quote, sheet: { ...quote.sheet, document: [...quote.sheet.document, { name: 'a', label: 'A', formula: 'total', type: 'amount', meaning: 'gross-total' }] } }, 'The meaning “gross-total” is given to 2 figures'],
    ['a placeholder without an end', { ...quote, plans: [{ ...quote.plans[0]!, title: 'Quote =[document.number' }] }, 'This placeholder is not closed'],
    ['a translation without an end', { ...quote, editions: [quote.editions[0]!, { ...quote.editions[1]!, words: { 'plan.file.title': { of: 'x', text: 'Offerte =[1' } } }] }, 'In the edition “Nederlands”: This placeholder is not closed'],
    ['a name that nothing has', withBody(paragraph('own', 'deal.colour')), 'In a paragraph, deal.colour: The deal has no “colour”'],
    ['such a name in blocks of an edition', { ...quote, editions: [{ ...quote.editions[0]!, instead: { crane: [paragraph('own', 'totale')] } }] }, 'In a paragraph, totale: There is no field and no figure “totale”'],
    ['a clause that is not there', withBody({ type: 'clause', attrs: { id: 'own', clause: 'gone' } }), 'The template asks for the clause “gone”, which is not here.'],
    ['an edition that changes what is not there', { ...quote, editions: [{ ...quote.editions[0]!, without: ['gone'] }] }, 'The edition “English” changes the block “gone”'],
    ['two editions of one id', { ...quote, editions: [quote.editions[0]!, quote.editions[0]!] }, 'Two of the editions are called “en”.'],
    ['a section of two otherwise', withBody({ type: 'whenSection', attrs: { id: 'own', when: 'true', note: 'it is so' }, content: [{ type: 'otherwise', attrs: { id: 'a' } }, { type: 'otherwise', attrs: { id: 'b' } }] }), 'The section “it is so” has one “then”'],
    ['a picture of nothing', withBody({ type: 'picture', attrs: { id: 'own', width: 10, alt: '' } }), 'The picture “own” is a file of the template or what a formula gives'],
    ['a check explained by no figure', { ...quote, checks: [{ id: 'c', title: 'C', formula: 'true', sentence: '', severity: 'warns', figure: 'gone' }] }, 'which is no figure of the document'],
    ['two asks of one name', { ...quote, asks: [{ name: 'days', label: 'Days', type: 'number' }, { name: 'days', label: 'Days', type: 'text' }] }, 'Two of the asks are called “days”.'],
    ['a choice among nothing', { ...quote, asks: [{ name: 'by', label: 'By', type: 'choice' }] }, '“By” is chosen among nothing.'],
    ['an ask that is usually of another kind', { ...quote, asks: [{ name: 'days', label: 'Days', type: 'number', default: 'deal.name' }] }, '“Days” is a number, but what it usually is gives a text.'],
    ['an ask whose formula names nothing', { ...quote, asks: [{ name: 'days', label: 'Days', type: 'number', default: 'totale' }] }, 'In what “Days” usually is, totale: There is no field and no figure “totale”'],
    ['a formula over what is not asked for', withBody(paragraph('own', 'ask.nights')), 'In a paragraph, ask.nights:'],
    ['a PDF/A that is protected', { ...quote, plans: [{ ...quote.plans[0]!, pdf: { standard: 'pdf/a-2b', protection: { printing: true, copying: true, changing: false } } }] }, 'makes a PDF/A and protects it'],
    ['a PDF/A with a file that is none', { ...quote, plans: [{ ...quote.plans[0]!, pdf: { standard: 'pdf/a-2b' } }], annexes: [{ id: 'a', label: 'A', file: '"terms"' }], files: { terms: { mediaType: 'application/pdf', sha256: '0'.repeat(64), pages: 2 } } }, 'the file “terms” that may be joined to it is none'],
  ])('tells of %s', (_, template, sentence) => {
    expect(sentences(template).join('\n')).toContain(sentence);
  }); // prettier-ignore

  it('counts all faults and tells the first hundred', () => {
    const many = withBody(...Array.from({ length: 150 }, (_, at) => paragraph(`own-${at}`, `nothing_${at}`)));
    const { count, faults } = faultsOf(many, shipped, demoSchema);
    expect([count, faults.length]).toEqual([150, 100]);
  });

  it('knows what is in scope in a section within a section, and in a clause there', () => {
    const inner = (content: Block): Block => ({
      type: 'forEach',
      attrs: { id: 'inner', list: 'item.lines', note: 'line' },
      content: [content],
    });
    const outer = (content: Block): Block => ({
      type: 'forEach',
      attrs: { id: 'outer', list: 'GROUP(lines, section)', note: 'section' },
      content: [inner(content)],
    });
    expect(sentences(withBody(outer(paragraph('own', 'item.quantity'))))).toEqual([]);
    expect(sentences(withBody(outer(paragraph('own', 'item.quantities'))))[0]).toContain('did you mean quantity?');
    const inClause = withBody(outer({ type: 'clause', attrs: { id: 'put', clause: 'words' } }));
    expect(sentences(inClause, pinned(clause('words', paragraph('own', 'quantity'))))).toEqual([]);
  });

  it('follows a figure under a new name into the blocks of every edition, and tells of a clause that is left behind', () => {
    const template: Template = {
      ...withBody({ type: 'clause', attrs: { id: 'put', clause: 'sum' } }),
      editions: [{ ...quote.editions[0]!, instead: { crane: [paragraph('own', 'total')] } }],
    };
    const pins = pinned(clause('sum', paragraph('words', 'total')));
    expect(sentences(template, pins)).toEqual([]);
    const renamed = renameInTemplate(
      template,
      checkContext(template, demoSchema, shipped.houseStyles),
      'total',
      'grand_total',
    );
    expect(placedFormulas(renamed).filter(({ formula }) => formula === 'total')).toEqual([]);
    expect(sentences(renamed, pins)).toEqual([
      'In a paragraph, total: There is no field and no figure “total”; did you mean grand_total?',
    ]);
  });
});

describe('clauses', () => {
  const outer = clause('outer', paragraph('words', '"outside"'), {
    type: 'clause',
    attrs: { id: 'in', clause: 'inner' },
  });
  const inner = clause('inner', paragraph('words', '"inside"'));
  const template = withBody({ type: 'clause', attrs: { id: 'put', clause: 'outer' } });

  it('stand within clauses, and print', () => {
    expect(clausesOf(template, [outer, inner])).toEqual(['terms-of-sale', 'outer', 'inner']);
    const context = { schema: demoSchema, pins: pinned(outer, inner), issueDate: '2026-11-23', edition: 'en' };
    const { document, findings } = compose(template, demoSnapshot('D-1187'), context);
    expect(document.body.slice(-2)).toMatchObject([
      { block: 'put.words', runs: [{ text: 'outside' }] },
      { block: 'put.in.words', runs: [{ text: 'inside' }] },
    ]);
    expect(findings.filter(({ severity }) => severity === 'stops')).toEqual([]);
  });

  it('that hold themselves are told, and end', () => {
    const circle = pinned(outer, clause('inner', { type: 'clause', attrs: { id: 'back', clause: 'outer' } }));
    expect(assemble(template, circle, 'en').circular).toEqual(['outer']);
    expect(sentences(template, circle)).toEqual(['The clause “outer” holds itself. Take it out of its own text.']);
  });
});
