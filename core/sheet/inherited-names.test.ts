import { describe, expect, it } from 'vitest';
import { minorUnit } from '../money/currency';
import type { FieldSchema, RecordSchema } from '../record/schema';
import { richBlocks } from '../rich/rich-text';
import { phrase, quoted } from '../words/phrases';
import { Checker } from './check';
import { completionsAt } from './complete';
import { SAMPLE, SAMPLE_CONTEXT } from './sample';
import { Sheet } from './sheet';
import { formatValue } from '../formula/value';

/** Names that every object inherits: none of them is a field, a figure or a word of anything. */
const INHERITED = [
  ...Object.getOwnPropertyNames(Object.prototype),
  ...Object.getOwnPropertyNames(Array.prototype),
  ...Object.getOwnPropertyNames(String.prototype),
].filter((name) => /^[A-Za-z_]+$/.test(name) && !['name', 'at', 'length'].includes(name));

/** Every place of a formula where a name or a word is read, in and outside of items. */
const PLACES: ((name: string) => string)[] = [
  (name) => name,
  (name) => `deal.${name}`,
  (name) => `deal.account.${name}`,
  (name) => `lines.${name}`,
  (name) => `lines[not optional].${name}`,
  (name) => `lines[${name} = 1].net`,
  (name) => `lines[item.${name} = 1].net`,
  (name) => `FIRST(lines).${name}`,
  (name) => `tax_rows.${name}`,
  (name) => `figures.${name}`,
  (name) => `tables.${name}`,
  (name) => `tables.freight.${name}`,
  (name) => `tables.${name}.price`,
  (name) => `document.${name}`,
  (name) => `REGISTERED().${name}`,
  (name) => `SCHEDULE(100, 2).${name}`,
  (name) => `${name}(1)`,
  (name) => `GROUP(lines, ${name})`,
  (name) => `SORT(lines, ${name})`,
  (name) => `PART(10, lines, ${name})`,
  (name) => `WORDS(5, "${name}")`,
  (name) => `WORDS(AMOUNT(5), "${name}")`,
  (name) => `AMOUNT(5, "${name}")`,
  (name) => `EXCHANGE(deal.amount, "${name}")`,
  (name) => `TEXT(5, "${name}")`,
  (name) => `TEXT(TODAY(), "${name}")`,
];

describe.each(PLACES.map((place) => [place('…'), place] as const))('an inherited name in %s', (_, place) => {
  it('is unknown, in words, when it is checked and when it is computed', () => {
    const sheet = new Sheet(SAMPLE);
    const checker = new Checker(SAMPLE_CONTEXT);
    const line = sheet.record.value('lines');
    const row = line.type === 'list' && line.items[0]?.type === 'record' ? line.items[0].row : undefined;
    for (const name of INHERITED) {
      const formula = place(name);
      for (const item of [undefined, row]) {
        const { value } = sheet.evaluate('test', formula, item);
        expect({ formula, type: value.type }).toEqual({ formula, type: 'error' });
      }
      const { diagnostics } = checker.formula(formula, checker.lines);
      if (!formula.includes('"')) expect({ formula, found: diagnostics.length > 0 }).toEqual({ formula, found: true });
    }
  });
});

it('an inherited name is an ordinary word where words are printed, tagged or completed', () => {
  for (const name of INHERITED) {
    expect(phrase(name, 'nl-NL')).toBe(name);
    expect(quoted('x', name)).toBe('“x”');
    expect(minorUnit(name)).toBe(2);
    if (/^[a-z]/i.test(name))
      expect(richBlocks(`<${name}>text</${name}>`)).toEqual([
        { kind: 'paragraph', runs: [{ kind: 'text', text: 'text' }] },
      ]);
    expect(Array.isArray(completionsAt(`${name}.`, name.length + 1, new Checker(SAMPLE_CONTEXT)).options)).toBe(true);
    expect(new Sheet(SAMPLE).evaluate('test', `REGISTERED("${name}")`).value).toMatchObject({
      type: 'list',
      items: [],
    });
  }
});

it('a field that the CRM calls by such a name is a field like any other', () => {
  const text = (name: string): FieldSchema => ({ name, label: name, type: 'text', nullable: true, readonly: false });
  const names = ['constructor', 'toString', '__proto__'];
  const schema: RecordSchema = {
    types: Object.fromEntries([
      ['constructor', { name: 'constructor', label: 'Thing', fields: Object.fromEntries(names.map((name) => [name, text(name)])) }],
    ]),
  }; // prettier-ignore
  const snapshot = {
    type: 'constructor',
    id: '1',
    fields: Object.fromEntries(names.map((name) => [name, `the ${name}`])),
  };
  const sheet = new Sheet({
    ...SAMPLE,
    schema,
    snapshot,
    sheet: { ...SAMPLE.sheet, perLine: [], lists: [], document: [] },
  });
  for (const name of names) {
    expect(formatValue(sheet.evaluate('test', `deal.${name}`).value, 'en')).toBe(`the ${name}`);
  }
});
