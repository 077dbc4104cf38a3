import type { ComposedBlock } from '../template/blocks';
import type { ComposedTable } from '../template/blocks/line-table';
import { describe, expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import { demoPictures, demoSchema, demoSnapshot, withFields } from '../../tests/demo-snapshot';
import { Decimal } from '../money/decimal';
import { money, number, text } from '../formula/value';
import type { FieldValue, RecordSnapshot } from '../record/snapshot';
import type { Template } from '../template/template';
import { compose } from './compose';
import type { Run } from '../template/composed';
import { PrintedSum } from '../sheet/printed-sum';

const plain = (runs: readonly Run[] = []) => runs.map((run) => (run.kind === 'text' ? run.text : ' / ')).join('');
const templateOf = (id: string) => shipped.templates.find((each) => each.id === id)!;

function tablesOf(blocks: readonly ComposedBlock[]): ComposedTable[] {
  return blocks.flatMap((block) => {
    if (block.kind === 'table') return [block];
    return block.kind === 'section' || block.kind === 'keep' ? tablesOf(block.blocks) : [];
  });
}

/** Sums of the last column, by section, with the subtotals; and what stops. */
function printed(template: Template, deal: RecordSnapshot) {
  const { document, findings, proved } = compose(template, deal, {
    schema: demoSchema,
    pins: shipped,
    issueDate: '2026-11-23',
    edition: 'en',
    registered: [],
    available: demoPictures,
  });
  const rowsOf = (id: string) =>
    tablesOf(document.body)
      .find(({ block }) => block === id)
      ?.sections.map((section) => [
        ...section.rows.map(({ cells }) => plain(cells.at(-1)!.runs)),
        ...(section.subtotal ? [`= ${plain(section.subtotal.value)}`] : []),
      ]) ?? [];
  return {
    lines: rowsOf('lines'),
    extras: rowsOf('extras-lines'),
    stops: findings
      .filter(({ severity }) => severity === 'stops')
      .map(({ sentence }) => sentence.replaceAll('\u00a0', ' ')),
    warns: findings.filter(({ severity }) => severity === 'warns').map(({ title }) => title),
    proved: proved.sums,
  };
}

/** The climate set of 3,600 with its parts of 390, 600 and 400, the last of them in another section; and a pipe for nothing. */
function climateSet(change: (line: RecordSnapshot, at: number) => Record<string, FieldValue> = () => ({})) {
  const deal = demoSnapshot('D-1215');
  const lines = (deal.fields.lines as RecordSnapshot[]).map((line, at) =>
    withFields(line, { parts_shown: at === 0 ? 'rolled up' : null, ...change(line, at) }),
  );
  return withFields(deal, { lines });
}

const proposal = templateOf('full-proposal');
const quote = templateOf('glasshouse-quote');

describe('what is printed adds up', () => {
  it('with a rolled-up set whose parts stand in another section: they are printed once, with the set', () => {
    const { lines, stops } = printed(proposal, climateSet());
    expect(lines).toEqual([['4,990.00', '0.00']]);
    expect(stops).toEqual([]);
  });

  it('with parts that are shown: they stand under the set; what is all in one section has no sum of its own', () => {
    const { lines, stops } = printed(
      proposal,
      climateSet((_, at) => ({ parts_shown: at === 0 ? 'indented' : null })),
    );
    expect(lines).toEqual([['3,600.00', '390.00', '600.00', '400.00', '0.00']]);
    expect(stops).toEqual([]);
  });

  it('with an optional set whose parts are not optional: these stand alone, the set among the extras', () => {
    const { lines, extras, stops } = printed(
      proposal,
      climateSet((_, at) => ({ optional: at === 0 })),
    );
    expect(lines).toEqual([
      ['390.00', '600.00', '0.00', '= 990.00'],
      ['400.00', '= 400.00'],
    ]);
    expect(extras).toEqual([['3,600.00']]);
    expect(stops).toEqual([]);
  });

  it('with an optional set and optional parts of it: rolled up among the extras', () => {
    const { lines, extras } = printed(
      quote,
      climateSet((_, at) => ({ optional: at < 3 })),
    );
    expect(lines).toEqual([['400.00', '0.00']]);
    expect(extras).toEqual([['4,590.00']]);
  });

  it('with two lines of one SKU: the parts are with the first, and it is told', () => {
    const deal = climateSet();
    const [set, ...others] = deal.fields.lines as RecordSnapshot[];
    const second = { ...withFields(set!, { unit_price: { amount: '100', currency: 'GBP' } }), id: 'second' };
    const { lines, stops, warns } = printed(quote, withFields(deal, { lines: [set!, second, ...others] }));
    expect(lines).toEqual([['4,990.00', '100.00', '0.00']]);
    expect(stops).toEqual([]);
    expect(warns).toContain('Two lines with parts have the same SKU');
  });

  it('with parts of a part: all of them are with the set', () => {
    const { lines, stops } = printed(
      quote,
      climateSet(({ fields }, at) => ({ part_of: at === 2 ? 'RW-1' : fields.part_of! })),
    );
    expect(lines).toEqual([['4,990.00', '0.00']]);
    expect(stops).toEqual([]);
  });

  it('with a set within a set whose own parts are shown', () => {
    const { lines } = printed(
      quote,
      climateSet((_, at) => ({
        parts_shown: ['indented', 'rolled up'][at] ?? null,
        ...(at === 2 && { part_of: 'RW-1' }),
      })),
    );
    expect(lines).toEqual([['3,600.00', '990.00', '400.00', '0.00']]);
  });

  it('with parts whose set was left out: they stand alone', () => {
    const deal = climateSet();
    const parts = (deal.fields.lines as RecordSnapshot[]).slice(1);
    const { lines, stops } = printed(proposal, withFields(deal, { lines: parts }));
    expect(lines).toEqual([
      ['390.00', '600.00', '0.00', '= 990.00'],
      ['400.00', '= 400.00'],
    ]);
    expect(stops).toEqual([]);
  });

  it('a part of itself is told in words', () => {
    const { stops } = printed(
      quote,
      climateSet(({ fields }, at) => ({ part_of: at === 1 ? 'RW-1' : fields.part_of! })),
    );
    expect(stops.join()).toContain('Line 2, Rain and wind sensor is a part of itself, by way of its parts.');
  });

  it('stops where rows are printed twice, although every formula adds up', () => {
    // Sections by each line's own section: the electrician is printed within the set, and again under Services.
    const sheet = structuredClone(proposal.sheet);
    const sections = sheet.lists.find(({ name }) => name === 'sections')!;
    sections.formula = 'GROUP(lines[not optional], section)';
    sections.columns = sections.columns.filter(({ name }) => name !== 'section');
    sections.columns.find(({ name }) => name === 'section_net')!.formula = 'SUM(item.lines.net)';
    const { stops } = printed({ ...proposal, sheet }, climateSet());
    expect(stops).toEqual([
      'The printed rows of “Climate” add up to 4,990.00 GBP, but “Climate” prints 4,590.00 GBP.',
      'The printed rows of “Net GBP” add up to 5,390.00 GBP, but “Subtotal” prints 4,990.00 GBP.',
    ]);
  });

  it('stops where a table leaves a row out that its total counts', () => {
    const layout = structuredClone(quote.layout);
    for (const block of layout.body)
      if (block.type === 'lineTable' && block.attrs.id === 'lines') block.attrs.filter = 'quantity > 1';
    const { stops } = printed(
      { ...quote, layout },
      climateSet(() => ({ parts_shown: null })),
    );
    expect(stops).toEqual(['The printed rows of “Net GBP” add up to 990.00 GBP, but “Subtotal” prints 4,990.00 GBP.']);
  });

  it('proves a column that the sheet declares, where the table does not say its total', () => {
    const layout = structuredClone(templateOf('deposit-invoice').layout);
    const table = layout.body.find((block) => block.type === 'lineTable');
    if (table?.type !== 'lineTable') throw new Error('no table');
    for (const column of table.attrs.columns) delete column.total;
    const broken = { ...templateOf('deposit-invoice'), layout };
    const proved = printed(broken, demoSnapshot('D-1194'));
    expect(proved.stops).toEqual([]);
    // Three sums of the sheet, and two of them again as the printed columns of the table.
    expect(proved.proved).toBe(5);
  });
});

describe('a printed sum', () => {
  const gbp = (amount: string) => money(Decimal.of(amount), 'GBP', 'amount');
  const eur = (amount: string) => money(Decimal.of(amount), 'EUR', 'amount');

  it('adds what is printed and passes over words', () => {
    const sum = new PrintedSum();
    for (const value of [gbp('0.10'), text(''), gbp('0.20'), number(0)]) sum.add(value);
    expect(sum.value).toEqual(gbp('0.30'));
    expect(sum.contradicts(gbp('0.3'), 'Net', 'Subtotal', 'en')).toBeUndefined();
    expect(sum.contradicts(gbp('0.31'), 'Net', 'Subtotal', 'en')).toBe(
      'The printed rows of “Net” add up to 0.30\u00a0GBP, but “Subtotal” prints 0.31\u00a0GBP.',
    );
  });

  it('adds the digits that are printed, not those behind them', () => {
    const sum = new PrintedSum();
    const third = number(Decimal.ONE.div(Decimal.of(3)));
    for (const value of [third, third, third]) sum.add(value);
    expect(sum.contradicts(number(1), 'Share', 'Whole', 'en')).toContain(
      'add up to 0.999999999999, but “Whole” prints 1',
    );
  });

  it('does not fail on what is too great to add', () => {
    const sum = new PrintedSum();
    for (const value of ['9e299', '9e299']) sum.add(number(Decimal.of(value)));
    expect(sum.contradicts(number(1), 'Net', 'Subtotal', 'en')).toContain('but “Subtotal” prints 1');
  });

  it('never mixes currencies', () => {
    const sum = new PrintedSum();
    sum.add(gbp('1'));
    sum.add(eur('2'));
    expect(sum.value).toBeUndefined();
    const apart = 'The column “Net” and its total “Subtotal” are not in one currency.';
    expect([gbp('3'), number(3)].map((total) => sum.contradicts(total, 'Net', 'Subtotal', 'en'))).toEqual([
      apart,
      apart,
    ]);
    const pounds = new PrintedSum();
    pounds.add(gbp('3'));
    expect(pounds.contradicts(eur('3'), 'Net', 'Subtotal', 'en')).toBe(apart);
    expect(pounds.contradicts(number(3), 'Net', 'Subtotal', 'en')).toBeUndefined();
  });

  it('of nothing is nothing, and contradicts no zero', () => {
    const sum = new PrintedSum();
    sum.add(text('none'));
    expect(sum.value).toBeUndefined();
    expect(sum.contradicts(gbp('0'), 'Net', 'Subtotal', 'en')).toBeUndefined();
    expect(sum.contradicts(gbp('1'), 'Net', 'Subtotal', 'en')).toContain('add up to 0.00');
  });
});
