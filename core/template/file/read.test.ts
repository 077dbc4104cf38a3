import Ajv from 'ajv/dist/2020';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { shipped } from '../../../demo/shipped';
import { templateJsonSchema } from './json-schema';
import { readTemplateFile } from './read';
import type { Template } from '../template';

const source = JSON.stringify(shipped.templates[0]);
const accepts = new Ajv({ strict: false }).compile(templateJsonSchema());

/** The quote with something changed, as a file. */
function changed(change: (template: Template & Record<string, never>) => void): string {
  const template = JSON.parse(source) as Template & Record<string, never>;
  change(template);
  return JSON.stringify(template);
}

const faultsOf = (file: string) => {
  const read = readTemplateFile(file);
  return 'faults' in read ? read.faults : [];
};

describe('the published JSON Schema', () => {
  it('is the current one', () => {
    expect(JSON.parse(readFileSync('public/template.schema.json', 'utf8'))).toEqual(templateJsonSchema());
  });

  it.each(shipped.templates.map((each) => [each.id, each] as const))(
    'accepts the shipped %s, as reading does',
    (_, template) => {
      expect(accepts(JSON.parse(JSON.stringify(template)))).toBe(true);
      expect(readTemplateFile(JSON.stringify(template))).toEqual({ template });
    },
  );
});

describe('a template file with a mistake', () => {
  const table = (template: Template) => template.layout.body.find((block) => block.type === 'lineTable')!;

  it.each<[string, (template: never) => void, string]>([
    ['an alignment that is none', (template: Template) => void Object.assign((table(template).attrs as { columns: object[] }).columns[1]!, { align: 'middle' }), 'In the lineTable “lines”, “item”, align: “middle” stands here, but this is one of start, end.'],
    ['a block nobody knows', (template: Template) => void template.layout.body.push({ type: 'marquee', attrs: { id: 'x' } } as never), 'In the marquee “x”'],
    ['a kind that is none', (template: Template) => void Object.assign(template, { kind: 'poem' }), 'In the template, kind: “poem” stands here'],
    ['an edition without a label', (template: Template) => void delete (template.editions[1] as { label?: string }).label, 'In “nl”, label: this is missing.'],
    ['a number for a formula', (template: Template) => void Object.assign(template.sheet.document[0]!, { formula: 5 }), 'formula: 5 stands here, but a text belongs here.'],
    ['a rounding that is none', (template: Template) => void Object.assign(template.sheet, { rounding: 'banana' }), 'rounding: “banana” stands here, but this is one of half-away, half-even.'],
    ['a property too many', (template: Template) => void Object.assign(template.layout, { sidebar: [] }), 'there is no property sidebar here'],
    ['no plan', (template: Template) => void (template.plans = []), 'In the template, plans: this is empty; at least one belongs here.'],
    ['an id of two words', (template: Template) => void (template.id = 'two words'), 'but this takes up to 120 letters, digits'],
  ])('%s is told with its place, and the JSON Schema refuses it too', (_, change, sentence) => {
    const file = changed(change as (template: Template) => void);
    expect(faultsOf(file).map((fault) => fault.sentence).join(' ')).toContain(sentence);
    expect(accepts(JSON.parse(file))).toBe(false);
  }); // prettier-ignore

  it('that is no JSON, or something else, is told', () => {
    expect(faultsOf('{"format": ')[0]!.sentence).toContain('not JSON');
    expect(faultsOf('[]')[0]!.sentence).toContain('stands here');
    expect(faultsOf('null').length).toBeGreaterThan(0);
    expect(faultsOf('{}').length).toBeGreaterThan(5);
  });
});
