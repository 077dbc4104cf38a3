import { describe, expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import { demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { shippedTemplate } from '../../tests/shipped-template';
import { dayOf } from '../formula/date';
import { Checker } from '../sheet/check';
import { Sheet } from '../sheet/sheet';
import type { Block } from '../template/blocks';
import { checkContext } from '../template/check';
import { documentRoots } from '../template/roots';
import type { Template } from '../template/template';
import { composeBlocks } from '../../tests/compose-blocks';
import { pageView } from './page-view';

function viewOf(template: Template, deal = 'D-1187') {
  const { pins } = shippedTemplate('glasshouse-quote');
  const houseStyle = shipped.houseStyles.find(({ id }) => id === template.houseStyle)!;
  const locale = template.editions[0]!.locale;
  const sheet = new Sheet({
    sheet: template.sheet,
    schema: demoSchema,
    snapshot: demoSnapshot(deal),
    root: template.record.root,
    roots: documentRoots({ company: houseStyle.company, issueDate: '2026-11-23', edition: 'en', locale }),
    locale,
    today: dayOf('2026-11-23'),
  });
  return pageView({
    checker: new Checker(checkContext(template, demoSchema, shipped.houseStyles)),
    template,
    pins: { ...pins, clauses: shipped.clauses },
    houseStyle,
    sheet,
    locale,
  });
}

const { template: quote } = shippedTemplate('glasshouse-quote');
const withBody = (body: Block[]): Template => ({ ...quote, layout: { ...quote.layout, body } });
const value = (id: string, formula: string, more: object = {}) => ({
  type: 'value' as const,
  attrs: { id, formula, ...more },
});
const paragraph = (id: string, ...content: ReturnType<typeof value>[]): Block => ({
  type: 'paragraph',
  attrs: { id },
  content,
});

describe('what the sheet shows', () => {
  it('of values is what the document prints', () => {
    const body = [
      paragraph('p', value('name', 'deal.name'), value('net', 'SUM(lines.quantity)')),
      paragraph('q', value('none', 'deal.order_number'), value('left', 'deal.order_number', { mayBeBlank: true })),
    ];
    const { values } = viewOf(withBody(body));
    const [first] = composeBlocks(body).document.body;
    const printed = first!.kind === 'paragraph' ? first!.runs.map((run) => run.kind === 'text' && run.text) : [];
    expect([values.name!.text, values.net!.text]).toEqual(printed);
    expect(values.name).toEqual({ text: 'Vent renewal, house 3' });
    expect(values.none!.fault).toBe('blank');
    expect(values.left).toEqual({ text: '' });
  });

  it('of a blank value to be written by pen is a ruled space, which is no finding', () => {
    const ruled = value('ruled', 'deal.order_number', { mayBeBlank: true, blankAs: 'ruledSpace' });
    const body = [paragraph('p', ruled, value('name', 'deal.name', { mayBeBlank: true, blankAs: 'ruledSpace' }))];
    const { document, findings } = composeBlocks(body);
    const [first] = document.body;
    expect(first!.kind === 'paragraph' && first!.runs).toEqual([
      { kind: 'text', text: '\u00a0'.repeat(60), underline: true, value: 'ruled' },
      { kind: 'text', text: 'Vent renewal, house 3', value: 'name' },
    ]);
    expect(findings.filter(({ block }) => block === 'p')).toEqual([]);
    const { values } = viewOf(withBody(body));
    expect(values.ruled!.text.trim()).toBe('');
    expect(values.ruled!.fault).toBeUndefined();
  });

  it('of what is wrong stands with its value, in words', () => {
    const { values, faults } = viewOf(withBody([paragraph('p', value('bad', 'NOFUNCTION(1)'))]));
    expect(values.bad).toMatchObject({ fault: 'error' });
    expect(faults).toContainEqual({
      block: 'p',
      value: 'bad',
      sentence: expect.stringContaining('NOFUNCTION') as string,
    });
  });

  it('of a text that cannot be read yet is nothing, and says so', () => {
    const signature: Block = { type: 'signature', attrs: { id: 's', label: 'For =[deal.name', date: 'Date' } };
    const { blocks, faults } = viewOf(withBody([signature]));
    expect(blocks.s).toEqual([]);
    expect(faults).toEqual([{ block: 's', sentence: 'This placeholder is not closed: add a “]”.' }]);
  });

  it('of a repeated section is its first item; of one without items nothing, and it is left out', () => {
    const section = (id: string, list: string): Block => ({
      type: 'forEach',
      attrs: { id, list, note: 'line' },
      content: [paragraph(`${id}p`, value(`${id}v`, 'quantity'))],
    });
    const { values, leftOut } = viewOf(withBody([section('all', 'lines'), section('none', 'lines[quantity > 999]')]));
    expect(values.allv).toEqual({ text: '12' });
    expect(values.nonev).toBeUndefined();
    expect(leftOut).toEqual(['none']);
  });

  it('of a condition is both branches, one of them left out', () => {
    const branch = (type: 'then' | 'otherwise', id: string) => ({
      type,
      attrs: { id },
      content: [paragraph(`${id}p`, value(`${id}v`, 'deal.name'))],
    });
    const section: Block = {
      type: 'whenSection',
      attrs: { id: 'w', when: 'SUM(lines.quantity) > 999', note: 'many' },
      content: [branch('then', 't'), branch('otherwise', 'o')],
    };
    const { values, leftOut } = viewOf(withBody([section]));
    expect([values.tv!.text, values.ov!.text]).toEqual(['Vent renewal, house 3', 'Vent renewal, house 3']);
    expect(leftOut).toEqual(['t']);
  });

  it.each(shipped.templates.map((template) => [template.id, template] as const))('holds all of %s', (_, template) => {
    const view = viewOf(template);
    const wanted = [...JSON.stringify(template.layout.body).matchAll(/"type":"value","attrs":\{"id":"([^"]+)"/g)];
    const inLeftOut = view.leftOut.length > 0;
    for (const [, id] of wanted) if (!inLeftOut) expect(view.values[id!], id).toBeDefined();
    expect(Object.keys(view.blocks).length).toBeGreaterThan(0);
    expect(view.letterhead.header.length).toBeGreaterThan(0);
    expect(Object.values(view.drawings)[0]).toContain('<svg');
  });
});
