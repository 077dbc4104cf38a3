import type { Block, ComposedBlock } from '../template/blocks';
import { describe, expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import glasshouseQuote from '../../demo/templates/glasshouse-quote.json';
import { demoRecords } from '../../demo/crm/index';
import { demoPictures, demoSchema, demoSnapshot, withFields } from '../../tests/demo-snapshot';
import { expectedTotals } from '../../tests/expected-totals';
import { mayFile } from './findings/finding';
import type { RecordSnapshot } from '../record/snapshot';
import type { Template } from '../template/template';
import { fitReadsOf } from '../template/reads';
import { compose, composing, lastSheet, unfitFor, type ComposeContext } from './compose';
import type { Run } from '../template/composed';

const template = glasshouseQuote as unknown as Template;
const context: ComposeContext = {
  schema: demoSchema,
  pins: shipped,
  issueDate: '2026-11-23',
  edition: 'en',
  plan: 'file',
};
const composed = (snapshot: RecordSnapshot | string, more: Partial<ComposeContext> = {}) =>
  compose(template, typeof snapshot === 'string' ? demoSnapshot(snapshot) : snapshot, { ...context, ...more });

function* blocks(list: readonly ComposedBlock[]): Generator<ComposedBlock> {
  for (const block of list) {
    yield block;
    if (block.kind === 'section' || block.kind === 'keep') yield* blocks(block.blocks);
    if (block.kind === 'columns') for (const column of block.columns) yield* blocks(column);
  }
}
const plain = (runs: readonly Run[]) => runs.map((run) => (run.kind === 'text' ? run.text : ' ')).join('');
const find = <K extends ComposedBlock['kind']>(list: ComposedBlock[], kind: K, source: string) =>
  [...blocks(list)].find(
    (block): block is Extract<ComposedBlock, { kind: K }> => block.kind === kind && block.block === source,
  );
/** A printed sum in the smallest unit. */
const units = (printed: string) => BigInt(printed.replace('−', '-').replace(/[,.]/g, ''));

describe('a template that is for some records', () => {
  const forWon: Template = {
    ...template,
    fits: { formula: 'deal.stage = "Won"', sentence: 'Only for deals that are won, not for =[deal.name].' },
  };
  const at = (stage: string) => withFields(demoSnapshot('D-1187'), { stage });

  it('warns of others in its own words, and uses nothing by it', () => {
    const { findings, used } = compose(forWon, at('Lost'), context);
    expect(findings).toContainEqual({
      id: 'unfit',
      severity: 'warns',
      title: 'Does not fit this deal',
      sentence: 'Only for deals that are won, not for Vent renewal, house 3.',
      values: [],
    });
    expect(Object.keys(used)).not.toContain('deal.stage');
    expect(compose(forWon, at('Won'), context).findings).toEqual(composed(at('Won')).findings);
  });

  it('says so of a record alone; what cannot be told does not fit', () => {
    expect(unfitFor(forWon, at('Won'), context)).toBeUndefined();
    expect(unfitFor(template, at('Lost'), context)).toBeUndefined();
    const unclear = { ...forWon, fits: { formula: 'deal.amount > deal.name', sentence: 'It cannot be told.' } };
    expect(unfitFor(unclear, at('Won'), context)).toBe('It cannot be told.');
  });

  it('is asked with what it reads for that', () => {
    expect(fitReadsOf(forWon, shipped, demoSchema)).toEqual([['stage'], ['name']]);
    expect(fitReadsOf(template, shipped, demoSchema)).toEqual([]);
    const byFigure = { ...template, fits: { formula: 'subtotal.amount > 0', sentence: 'Nothing to quote.' } };
    expect(fitReadsOf(byFigure, shipped, demoSchema)).toContainEqual(['lines', 'quantity']);
  });
});

describe.each(Object.entries(expectedTotals))('%s', (id, expected) => {
  const { document, findings } = composed(id);
  const totals = find(document.body, 'totals', 'totals')!.rows.map(
    ({ label, value }) => [plain(label), plain(value)] as const,
  );
  const row = (label: string) => totals.find(([words]) => words.startsWith(label))?.[1];

  it('prints the totals that another program computed', () => {
    const withoutCommas = (printed: string | undefined) => printed?.replaceAll(',', '');
    expect(withoutCommas(row('Subtotal'))).toBe(expected.subtotal);
    expect(totals.filter(([label]) => label.startsWith('VAT')).map(([, value]) => withoutCommas(value))).toEqual(
      expected.taxes,
    );
    expect(withoutCommas(row('Total'))).toBe(expected.total);
  });

  it('prints a net column that sums to the subtotal, and a subtotal and taxes that sum to the total', () => {
    const table = find(document.body, 'table', 'lines');
    const net = table?.sections.flatMap(({ rows }) => rows).map(({ cells }) => units(plain(cells.at(-1)!.runs))) ?? [];
    const sum = (values: bigint[]) => values.reduce((total, each) => total + each, 0n);
    expect(sum(net)).toBe(units(row('Subtotal')!));
    const taxes = totals.filter(([label]) => label.startsWith('VAT')).map(([, value]) => units(value));
    expect(units(row('Subtotal')!) + sum(taxes)).toBe(units(row('Total')!));
    expect(findings.filter(({ id: finding }) => finding.startsWith('sum '))).toEqual([]);
  });
});

describe('findings', () => {
  it('name the line and the field of a missing unit price, once, and stop filing', () => {
    const { findings } = composed('D-1202');
    expect(findings).toHaveLength(1);
    expect(findings[0]).toMatchObject({
      severity: 'stops',
      title: 'No unit price',
      path: 'deal.lines{D-1202-4}.unit_price',
    });
    expect(findings[0]!.sentence).toBe(
      'Line 4, Vent motor VM-48, 24 V: no unit price, but it is printed here. Set it on the deal.',
    );
    expect(mayFile(findings)).toBe(false);
  });

  it('warn when the subtotal is not the deal’s amount', () => {
    const { findings } = composed('D-1187');
    expect(findings.map(({ severity, sentence }) => [severity, sentence.replaceAll('\u00a0', ' ')])).toEqual([
      ['warns', 'The deal says 15,300.00 GBP; these lines come to 15,364.00 GBP.'],
    ]);
  });

  it('stop a deal without a currency', () => {
    const { findings } = composed('D-1208');
    expect(findings.some(({ title, severity }) => title === 'No currency' && severity === 'stops')).toBe(true);
  });

  it('stop an internal figure on the page', () => {
    const document = template.sheet.document.map((figure) =>
      figure.name === 'total' ? { ...figure, internal: true } : figure,
    );
    const { findings } = compose(
      { ...template, sheet: { ...template.sheet, document } },
      demoSnapshot('D-1187'),
      context,
    );
    expect(findings.find(({ title }) => title === 'An internal figure is printed')).toMatchObject({
      severity: 'stops',
    });
  });

  it('stop a printed column that does not add up to its figure', () => {
    const perLine = template.sheet.perLine.map((figure) =>
      figure.name === 'net' ? { ...figure, type: 'price' as const } : figure,
    );
    const { findings } = compose(
      { ...template, sheet: { ...template.sheet, perLine } },
      demoSnapshot('D-1200'),
      context,
    );
    expect(findings.find(({ title }) => title === 'A printed column does not add up')).toMatchObject({
      severity: 'stops',
    });
  });

  it.each(demoRecords.deals.map(({ id }) => id))('leave no error unexplained on %s', (id) => {
    const { document, findings } = composed(id);
    const faults = [...blocks(document.body)]
      .flatMap((block) => (block.kind === 'paragraph' ? block.runs : []))
      .filter((run) => run.kind === 'text' && run.fault);
    if (faults.length > 0) expect(mayFile(findings)).toBe(false);
  });
});

describe('sections', () => {
  const has = (id: string, section: string) => find(composed(id).document.body, 'section', section) !== undefined;

  it.each([
    ['heated', 'D-1187', true],
    ['heated', 'D-1192', false],
    ['crane', 'D-1187', true],
    ['crane', 'D-1189', false],
    ['extras', 'D-1188', true],
    ['extras', 'D-1187', false],
    ['order-number', 'D-1188', true],
    ['order-number', 'D-1187', false],
  ])('“%s” on %s: %s', (section, id, printed) => {
    expect(has(id, section)).toBe(printed);
  });

  it('print one of two sentences on VAT, by country', () => {
    const sentence = (id: string) => {
      const section = find(composed(id).document.body, 'section', 'vat')!;
      return section.blocks.map((block) => (block.kind === 'paragraph' ? plain(block.runs) : '')).join('');
    };
    expect(sentence('D-1187')).toContain('United Kingdom');
    expect(sentence('D-1189')).toContain('Supplied to Netherlands');
  });
});

describe('an edition', () => {
  it('whose products have no names in its language says which', () => {
    const said = (id: string, edition: string) =>
      composed(id, { edition }).findings.find((finding) => finding.id === 'check translated')?.sentence;
    // Of the ridge vent there is a Dutch name; of the hinged door there is none.
    expect(said('D-1187', 'nl')).toBeUndefined();
    const [line] = demoSnapshot('D-1187').fields.lines as RecordSnapshot[];
    const door = withFields(line!, {
      name: 'Hinged door',
      product: withFields(line!.fields.product as RecordSnapshot, { name: 'Hinged door', name_nl: null }),
    });
    const deal = withFields(demoSnapshot('D-1187'), { lines: [door] });
    const { findings } = composed(deal, { edition: 'nl' });
    expect(findings.find(({ id }) => id === 'check translated')).toMatchObject({
      severity: 'warns',
      sentence: expect.stringContaining('no name in this language for Hinged door, so') as string,
    });
    expect(composed(deal, { edition: 'en' }).findings.map(({ id }) => id)).not.toContain('check translated');
  });
});

describe('the reverse charge', () => {
  it.each(['glasshouse-quote', 'full-proposal', 'order-confirmation', 'deposit-invoice', 'final-invoice'])(
    'has the customer’s VAT number on the %s',
    (id) => {
      const template = shipped.templates.find((each) => each.id === id)!;
      const printed = (deal: string) =>
        JSON.stringify(
          compose(template, demoSnapshot(deal), {
            schema: demoSchema,
            pins: shipped,
            issueDate: '2026-11-23',
            edition: 'en',
            available: demoPictures,
            registered: [],
          }).document.body,
        );
      expect(printed('D-1189')).toContain('NL000000103B01');
      expect(printed('D-1187')).not.toContain('Your VAT number');
    },
  );
});

describe('what was used', () => {
  const deal = demoSnapshot('D-1187');
  const digest = (snapshot: RecordSnapshot) => composed(snapshot).usedDigest;

  it('changes with a printed value', () => {
    expect(digest(withFields(deal, { name: 'Vent renewal, house 4' }))).not.toBe(digest(deal));
  });

  it('does not change with a value that nothing printed', () => {
    expect(digest(withFields(deal, { stage: 'Won', snow_zone: '3' }))).toBe(digest(deal));
  });

  it('changes with a choice only when its outcome does', () => {
    expect(digest(withFields(deal, { site_works: { choices: ['crane', 'water'] } }))).toBe(digest(deal));
    expect(digest(withFields(deal, { site_works: { choices: ['water'] } }))).not.toBe(digest(deal));
  });

  it('is the same on the proof and with the number', () => {
    expect(composed(deal, { number: { serial: 42, text: 'Q-2026-0042' } }).usedDigest).toBe(digest(deal));
  });
});

it('is deterministic and plain data', () => {
  const once = composed('D-1188');
  expect(structuredClone(once)).toEqual(composed('D-1188'));
});

it('makes a file name that every file system takes', () => {
  const { fileName } = composed('D-1198', { number: { serial: 7, text: 'Q-2026-0007' } });
  expect(fileName).toBe('Quote Q-2026-0007 Dorran Glass -North- -Sales- & Sons 🌱.pdf');
});

describe('blocks', () => {
  const shipped = template;
  const body = (blocks: Block[], deal = 'D-1213', more: Partial<Template['sheet']> = {}) =>
    compose(
      { ...shipped, sheet: { ...shipped.sheet, ...more }, layout: { ...shipped.layout, body: blocks } },
      demoSnapshot(deal),
      context,
    );
  const words = (id: string, formula: string): Block => ({
    type: 'paragraph',
    attrs: { id },
    content: [{ type: 'value', attrs: { id: `${id}-value`, formula } }],
  });
  const texts = (blocks: readonly ComposedBlock[]): string[] =>
    blocks.flatMap((block) => {
      if (block.kind === 'paragraph') return [block.runs.map((run) => (run.kind === 'text' ? run.text : '')).join('')];
      return 'blocks' in block ? texts(block.blocks) : [block.kind];
    });
  const sections = { name: 'sections', label: 'Sections', formula: 'GROUP(lines[not optional], section)', columns: [] };

  it('repeat for each item, with its names in scope, nested conditions too', () => {
    const small: Block = {
      type: 'whenSection',
      attrs: { id: 'small', when: 'COUNT(item.lines) = 1', note: 'it has one line' },
      content: [{ type: 'then', attrs: { id: 'small.then' }, content: [words('one', '"one line"')] }],
    };
    const each: Block = {
      type: 'forEach',
      attrs: { id: 'each', list: 'sections', note: 'section' },
      content: [words('name', 'section'), small],
    };
    const { document, findings } = body([each], 'D-1213', { lists: [...shipped.sheet.lists, sections] });
    expect(findings.filter(({ severity }) => severity === 'stops')).toEqual([]);
    expect(texts(document.body)).toEqual(['Structure', 'one line', 'Climate', 'Services', 'one line']);
  });

  it('print nothing at all for each item of an empty list', () => {
    const each: Block = {
      type: 'forEach',
      attrs: { id: 'each', list: 'lines[quantity < 0]', note: 'line' },
      content: [words('name', 'name')],
    };
    expect(body([each]).document.body).toEqual([]);
  });

  it('begin a page of their own where asked, but never inside what is kept together', () => {
    const each: Block = {
      type: 'forEach',
      attrs: { id: 'each', list: 'sections', note: 'section', startsPage: true },
      content: [words('name', 'section')],
    };
    const lists = { lists: [...shipped.sheet.lists, sections] };
    expect(texts(body([each], 'D-1213', lists).document.body)).toEqual([
      'pageBreak',
      'Structure',
      'pageBreak',
      'Climate',
      'pageBreak',
      'Services',
    ]);
    expect(
      texts(body([{ type: 'keepTogether', attrs: { id: 'keep' }, content: [each] }], 'D-1213', lists).document.body),
    ).toEqual(['Structure', 'Climate', 'Services']);
  });

  it('draw a formula’s text as a code, and say when it cannot be one', () => {
    const code = (symbology: 'qrcode' | 'ean13'): Block => ({
      type: 'code',
      attrs: { id: 'code', symbology, formula: 'deal.name', width: 60, alt: 'The deal' },
    });
    expect(body([code('qrcode')]).document.body).toMatchObject([{ kind: 'picture', alt: 'The deal', width: 60 }]);
    const refused = body([code('ean13')]);
    expect(refused.document.body).toEqual([]);
    expect(refused.findings.map(({ sentence }) => sentence)).toContain(
      '“Tomato range, framework order” cannot be printed as this kind of code; choose another kind, or another text.',
    );
  });

  it('a blank in a code stops filing', () => {
    const code: Block = {
      type: 'code',
      attrs: { id: 'code', symbology: 'qrcode', formula: 'deal.incoterm', width: 60, alt: 'x' },
    };
    expect(body([code]).findings.map(({ severity }) => severity)).toContain('stops');
  });
});

describe('the last sheet over a record', () => {
  const snapshot = demoSnapshot('D-1188');
  const words = (more: string): Template => {
    const body = [
      { type: 'paragraph' as const, attrs: { id: 'more' }, content: [{ type: 'text' as const, text: more }] },
      ...template.layout.body,
    ];
    return { ...template, layout: { ...template.layout, body } };
  };
  const figures = (formula: string): Template => {
    const document = template.sheet.document.map((each) => (each.name === 'tax_total' ? { ...each, formula } : each));
    return { ...template, sheet: { ...template.sheet, document } };
  };

  it('gives the same documents as one made anew, whatever is changed from one to the next', () => {
    const sheets = lastSheet();
    const other = withFields(snapshot, { name: 'Another name' });
    const all: [Template, RecordSnapshot, Partial<ComposeContext>][] = [
      [template, snapshot, {}],
      [words('typed'), snapshot, {}],
      [figures('AMOUNT(1)'), snapshot, {}],
      [template, snapshot, { edition: 'ar' }],
      [template, other, {}],
      [template, snapshot, { issueDate: '2027-01-01' }],
      [template, snapshot, { number: { serial: 7, text: 'Q-7' } }],
      [template, snapshot, {}],
    ];
    for (const [changed, record, more] of all) {
      const kept = composing(changed, record, { ...context, ...more }, sheets).composition;
      expect(JSON.stringify(kept)).toBe(JSON.stringify(compose(changed, record, { ...context, ...more })));
    }
  });

  it('is the same one while only words are changed', () => {
    const sheets = lastSheet();
    const first = composing(template, snapshot, context, sheets);
    const second = composing(words('typed'), snapshot, context, sheets);
    expect(second.numbers()).toEqual(first.numbers());
    expect(second.composition.figures).toEqual(first.composition.figures);
  });
});
