import { describe, expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import { composeBlocks } from '../../tests/compose-blocks';
import { demoPictures, demoSchema, demoSnapshot, withFields } from '../../tests/demo-snapshot';
import type { FieldValue, RecordSnapshot } from '../record/snapshot';
import type { Inline } from '../template/inlines';
import type { Plan } from '../template/plan';
import type { Template } from '../template/template';
import { compose, type ComposeContext } from './compose';

const HASH = Object.keys(demoPictures)[0]!;
const quote = shipped.templates[0]!;
const pdf = (pages?: number) => ({ label: 'Terms', mediaType: 'application/pdf', sha256: HASH, size: 1, pages });
const files = { terms: pdf(3), plans: pdf(2), unknown: pdf() } as unknown as Template['files'];
const withPlan = (plan: Partial<Plan>): Partial<Template> => ({ plans: [{ ...quote.plans[0]!, ...plan }] });
const composed = (template: Partial<Template>, context: Partial<ComposeContext> = {}) =>
  composeBlocks([], { template, context });

describe('annexes', () => {
  const annex = (file: string, counted?: boolean) => ({
    id: 'terms',
    label: 'Terms',
    file,
    ...(counted && { counted }),
  });

  it('are joined in order; those that count add their pages to the document’s', () => {
    const { annexes, document, assets, used } = composed({
      files,
      annexes: [annex('"plans"'), { ...annex('"terms"', true), id: 'second' }],
    });
    expect(annexes).toEqual([
      { label: 'Terms', sha256: HASH, pages: 2 },
      { label: 'Terms', sha256: HASH, pages: 3 },
    ]);
    expect(document.annexPages).toBe(3);
    expect(Object.keys(assets)).toContain(HASH);
    expect(used['choice annex second']).toBe('terms');
  });

  it('whose pages are not known count none; a blank joins none', () => {
    expect(composed({ files, annexes: [annex('"unknown"', true)] }).document.annexPages).toBe(0);
    expect(composed({ files, annexes: [annex('""')] })).toMatchObject({ annexes: [], findings: [] });
    expect(composed({ files, annexes: [annex('deal.order_number')] })).toMatchObject({ annexes: [], findings: [] });
  });

  it('that the template does not have, or that fail, stop', () => {
    expect(composed({ files, annexes: [annex('"gone"')] }).findings).toMatchObject([
      { severity: 'stops', of: 'template', sentence: 'The template has no PDF “gone” to join as “Terms”.' },
    ]);
    expect(composed({ annexes: [annex('1 / 0')] }).findings).toMatchObject([{ sentence: 'Division by zero.' }]);
  });

  it('may be PDFs that the record, or what its lines are of, holds: each is joined once', () => {
    const file = (link: string, more: object): FieldValue => ({ image: { link, sha256: HASH, ...more } });
    const pdfFile = file('one', { mediaType: 'application/pdf', pages: 2 });
    const line = (id: string, data_sheet: FieldValue): RecordSnapshot => ({
      type: 'LineItem',
      id,
      fields: { product: { type: 'Product', id, fields: { data_sheet } } },
    });
    const deal = (...sheets: FieldValue[]) =>
      withFields(demoSnapshot('D-1187'), {
        lines: sheets.map((sheet, at) => line(`L-${at}`, sheet)),
        site_photo: pdfFile,
      });
    const sheet = { ...quote.sheet, sums: [] };
    const joinedOf = (of: RecordSnapshot, formula: string) =>
      composeBlocks([], {
        deal: of,
        template: { annexes: [annex(formula, true)], sheet, ...withPlan({ steps: undefined }) },
      });

    const { annexes, document, used, findings } = joinedOf(deal(pdfFile, null, pdfFile), 'lines.product.data_sheet');
    expect(annexes).toEqual([{ label: 'Terms', sha256: HASH, pages: 2 }]);
    expect(document.annexPages).toBe(2);
    expect(used['choice annex terms']).toBe(HASH);
    expect(findings).toEqual([]);
    expect(joinedOf(deal(), 'deal.site_photo').annexes).toHaveLength(1);
    expect(joinedOf(deal(file('two', {})), 'FIRST(lines).product.data_sheet').findings).toMatchObject([
      { severity: 'stops', sentence: 'A file of the record cannot be joined as “Terms”. It is a picture, not a PDF.' },
    ]);
    expect(
      joinedOf(deal({ image: { link: 'three', refused: 'It is locked.' } }), 'lines.product.data_sheet').findings,
    ).toMatchObject([{ sentence: 'A file of the record cannot be joined as “Terms”. It is locked.' }]);
  });

  it('may be several, as a list', () => {
    const owner = withFields(demoSnapshot('D-1187'), {
      lines: ['plans', 'terms'].map((name) => ({ type: 'LineItem', id: name, fields: { name } })),
    });
    const { annexes } = composeBlocks([], {
      deal: owner,
      template: { files, annexes: [annex('lines.name')], sheet: { ...quote.sheet, sums: [] } },
    });
    expect(annexes).toHaveLength(2);
  });
});

describe('the output', () => {
  const protection = { printing: true, copying: false, changing: false };

  it('is plain unless the plan asks for more', () => {
    expect(composed(withPlan({ pdf: undefined })).output).toEqual({});
    expect(composed(withPlan({ pdf: { standard: 'pdf/a-2b' } })).output).toEqual({ standard: 'pdf/a-2b' });
  });

  it('is protected by a password that a formula gives, or by none', () => {
    expect(composed(withPlan({ pdf: { protection } })).output).toEqual({ protection });
    expect(
      composed(withPlan({ pdf: { protection: { ...protection, password: 'deal.nothing' } } })).findings,
    ).not.toEqual([]);
    const { output } = composed(withPlan({ pdf: { protection: { ...protection, password: 'deal.name' } } }));
    expect(output.protection).toEqual({ ...protection, password: 'Vent renewal, house 3' });
  });

  it('is never a protected archive (ISO 19005-2, 6.1.3)', () => {
    const { output, findings } = composed(withPlan({ pdf: { standard: 'pdf/a-2b', protection } }));
    expect(output).toEqual({ standard: 'pdf/a-2b' });
    expect(findings).toMatchObject([{ severity: 'stops', of: 'template' }]);
    expect(findings[0]!.sentence).toMatch(/^A PDF\/A document cannot be protected/);
  });

  it('has the plan’s watermark, and the trial’s instead where it is one', () => {
    const plan = withPlan({ pdf: { watermark: 'Copy' } });
    expect(composed(plan).document.watermark).toBe('Copy');
    expect(composed(plan, { trial: true }).document.watermark).toBe('Trial');
    expect(composed(withPlan({ pdf: undefined })).document).not.toHaveProperty('watermark');
  });
});

describe('the document as a whole', () => {
  it('is in the edition that the template’s formula chooses, in the first where there is none of that name', () => {
    const editions = quote.editions.map(({ id }) => id);
    const inEdition = (edition: string) => composed({ edition }, { edition: undefined }).edition;
    expect(inEdition(`"${editions[1]}"`)).toBe(editions[1]);
    expect(inEdition('"klingon"')).toBe(editions[0]);
    expect(inEdition('1 / 0')).toBe(editions[0]);
    expect(composed({ edition: undefined }, { edition: undefined }).edition).toBe(editions[0]);
  });

  it('reads from right to left in a language that does', () => {
    const arabic = quote.editions.find(({ locale }) => locale.startsWith('ar'));
    const editions = [arabic ?? { ...quote.editions[0]!, id: 'ar', locale: 'ar-AE' }];
    expect(composed({ editions }, { edition: editions[0]!.id }).document).toMatchObject({
      language: 'ar',
      direction: 'rtl',
    });
    expect(composed({}).document).toMatchObject({ language: 'en', direction: 'ltr' });
  });

  it('without a currency of ISO 4217 stops, with a way to it where it is a field', () => {
    const deal = withFields(demoSnapshot('D-1187'), { currency: null });
    expect(composeBlocks([], { deal }).findings).toMatchObject([
      { id: 'missing deal.currency', severity: 'stops', path: 'deal.currency' },
    ]);
    expect(composed({ sheet: { ...quote.sheet, currency: '"pounds"' } }).findings[0]).toMatchObject({
      sentence: 'The deal has no currency that is an ISO 4217 code, so no sum can be printed. Set it on the deal.',
    });
  });

  it('without a currency is one finding, with a mark wherever one is printed or wanted', () => {
    const deal = withFields(demoSnapshot('D-1187'), { currency: null });
    const value = (id: string, formula: string): Inline => ({ type: 'value', attrs: { id, formula } });
    const content = [value('code', 'deal.currency'), value('sum', 'AMOUNT(5)'), value('other', 'AMOUNT(6)')];
    const { findings } = composeBlocks([{ type: 'paragraph', attrs: { id: 'own' }, content }], { deal });
    expect(findings).toMatchObject([{ title: 'No currency', values: ['code', 'sum', 'other'] }]);
  });

  it('findings and workings speak English, and write numbers so, in every edition', () => {
    const check = {
      id: 'own',
      title: 'Own',
      formula: 'total = 0',
      sentence: 'It comes to =[total].',
      severity: 'warns' as const,
      figure: 'total',
    };
    const { findings, figures } = compose({ ...quote, checks: [check] }, demoSnapshot('D-1187'), {
      schema: demoSchema,
      pins: shipped,
      issueDate: '2026-11-23',
      edition: 'nl',
      available: demoPictures,
    });
    const own = findings.find(({ id }) => id === 'check own')!;
    expect(own.sentence.replaceAll('\u00a0', ' ')).toBe('It comes to 18,436.80 GBP.');
    // The figure that it is about has its mark on the page.
    expect(own.values).toEqual(['totals.total']);
    expect(figures.find(({ name }) => name === 'total')!.result).toMatch(/^18,436\.80/);
  });

  it('a clause that is gone stops, whoever took it away', () => {
    const { findings } = composeBlocks([{ type: 'clause', attrs: { id: 'warranty', clause: 'warranty-of-old' } }]);
    expect(findings).toMatchObject([
      {
        severity: 'stops',
        of: 'template',
        sentence:
          'The clause “warranty-of-old” is used by this template but is not there any more. Take it off the page, or publish the template anew.',
      },
    ]);
  });
});

describe('the template’s own checks', () => {
  const check = (formula: string, more: object = {}) => ({
    id: 'own',
    title: 'Too small',
    formula,
    sentence: 'The total is =[figures.total].',
    severity: 'warns' as const,
    ...more,
  });

  it('tell what does not hold, with their values in the sentence', () => {
    const { findings, used } = composed({ checks: [check('figures.total > 1000000')] });
    expect(findings).toMatchObject([{ severity: 'warns', title: 'Too small' }]);
    expect(findings[0]!.sentence).toBe('The total is 18,436.80\u00a0GBP.');
    // It is for the person at the desk: what it says is not printed.
    expect(Object.keys(used).filter((path) => path.includes('own'))).toEqual([]);
  });

  it('say nothing where they hold, or where what they look at has failed already', () => {
    expect(composed({ checks: [check('figures.total > 0')] }).findings).toEqual([]);
    expect(composed({ checks: [check('1 / 0 > 0')] }).findings).toEqual([]);
  });
});
