import { describe, expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import { demoSchema } from '../../tests/demo-snapshot';
import { FormulaError } from '../formula/ast';
import { checkSheet } from '../sheet/check-sheet';
import { Checker, type CheckContext } from '../sheet/check';
import { checkContext, diagnosticsOf, renameInTemplate } from './check';
import { placedFormulas } from './formulas';
import { readsOf } from './reads';
import { splitPlaceholders } from './placeholders';
import type { Template } from './template';

const template = shipped.templates[0]!;
const checkTemplate = (each: Template, context: CheckContext) => [...diagnosticsOf(each, new Checker(context))];

describe('placeholders', () => {
  it('nest brackets and quoted texts', () => {
    expect(splitPlaceholders('a =[lines[name = "]"].net] b')).toEqual([
      { kind: 'text', text: 'a ' },
      { kind: 'formula', formula: 'lines[name = "]"].net' },
      { kind: 'text', text: ' b' },
    ]);
  });

  it('leave a plain equals sign alone', () => {
    expect(splitPlaceholders('1 = 1')).toEqual([{ kind: 'text', text: '1 = 1' }]);
  });

  it('say when one is not closed', () => {
    expect(() => splitPlaceholders('Quote =[document.number')).toThrow(FormulaError);
  });
});

describe.each(shipped.templates.map((each) => [each.id, each] as const))('the shipped %s', (_, each) => {
  it('checks without a complaint, on its page and in its figures', () => {
    const context = checkContext(each, demoSchema, shipped.houseStyles);
    expect(placedFormulas(each).length).toBeGreaterThan(25);
    expect(checkTemplate(each, context)).toEqual([]);
    const { figures, problems } = checkSheet(context);
    expect([...problems, ...Object.values(figures).flatMap((figure) => figure.problems)]).toEqual([]);
  });
});

describe('the shipped quote', () => {
  const context = checkContext(template, demoSchema, shipped.houseStyles);

  it('has formulas that all check without a complaint', () => {
    expect(placedFormulas(template).length).toBeGreaterThan(30);
    expect(checkTemplate(template, context)).toEqual([]);
  });

  it('follows a figure under a new name', () => {
    const renamed = renameInTemplate(template, context, 'total', 'grand_total');
    const formulas = placedFormulas(renamed).map(({ formula }) => formula);
    expect(formulas).toContain('grand_total');
    expect(formulas).not.toContain('total');
    expect(checkTemplate(renamed, { ...context, sheet: renamed.sheet })).toEqual([]);
  });

  it('asks the CRM for what it uses and nothing else', () => {
    const { fields, related } = readsOf(template, shipped, demoSchema);
    expect([...fields].sort()).toEqual([
      'amount',
      'brand',
      'closes_on',
      'currency',
      'deposit_percent',
      'heating',
      'name',
      'order_number',
      'owner',
      'quote_language',
      'scope_note',
      'site_address',
      'site_works',
      'stage',
      'validity_days',
    ]);
    expect([...related.get('account')!.fields].sort()).toEqual([
      'city',
      'country',
      'name',
      'postcode',
      'street',
      'vat_number',
    ]);
    expect([...related.get('contact')!.fields].sort()).toEqual(['family_name', 'given_name', 'name', 'salutation']);
    expect([...related.get('lines')!.fields].sort()).toEqual([
      'description',
      'discount',
      'name',
      'optional',
      'part_of',
      'parts_shown',
      'quantity',
      'sku',
      'tax_category',
      'tax_rate',
      'trade_in',
      'unit',
      'unit_price',
    ]);
  });
});
