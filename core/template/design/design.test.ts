import { describe, expect, it } from 'vitest';
import { shipped } from '../../../demo/shipped';
import { demoPictures, demoSchema, demoSnapshot } from '../../../tests/demo-snapshot';
import { compose } from '../../production/compose';
import type { LineTable } from '../blocks/line-table';
import { faultsOf } from '../gate';
import { newTemplate } from '../starter';
import type { Template } from '../template';
import { groupedBy, optionalWay, tableOf, withGroups, withOptional, type Designed } from './tables';
import { OPTIONAL_WAYS } from './optional-ways';
import { scheduleOf, totalsOf, totalsOffered } from './totals';

const AROUND = { schema: demoSchema, houseStyle: 'orrin-vale', series: 'quote' };
const empty = newTemplate({ name: 'Empty', kind: 'quote', recordType: 'Deal', from: 'empty' }, AROUND);

/** Ids in a row, so that what is made is the same each time. */
function ids(): () => string {
  let count = 0;
  return () => `made-${++count}`;
}
const put = (template: Template, { sheet, block }: { sheet: Template['sheet']; block: object }): Template => ({
  ...template,
  sheet,
  layout: { ...template.layout, body: [...template.layout.body, block as Designed['block']] },
});
const withTable = (table: LineTable, template: Template): Template =>
  put(
    { ...template, layout: { ...template.layout, body: [] } },
    { sheet: template.sheet, block: { type: 'lineTable', attrs: table } },
  );

function composed(template: Template, deal = 'D-1187') {
  expect(faultsOf(template, shipped, demoSchema)).toMatchObject({ faults: [] });
  return compose(template, demoSnapshot(deal), {
    schema: demoSchema,
    pins: shipped,
    issueDate: '2026-11-27',
    available: demoPictures,
  });
}
const figure = (template: Template, name: string, deal?: string) =>
  composed(template, deal).figures.find((each) => each.name === name)?.result;

describe('a table of the lines', () => {
  const { sheet, block } = tableOf(empty, demoSchema, 'lines', ids());
  const template = put(empty, { sheet, block });

  it('has what lines are shown by, the description under the name, and the net that adds up to the subtotal', () => {
    expect(block.attrs.columns.map(({ heading }) => heading)).toEqual([
      '',
      'Item',
      'Quantity',
      'Unit',
      'Unit price',
      'Discount',
      'Net',
    ]);
    expect(block.attrs.columns[1]!.detail).toBe('description');
    expect(block.attrs.columns.at(-1)).toMatchObject({ formula: 'net', total: 'subtotal' });
    expect(block.attrs.list).toBe('lines[not optional]');
    expect(block.attrs.columns.find(({ id }) => id === 'discount')!.when).toBe(
      'COUNT(lines[not optional][discount ?? 0% <> 0%]) > 0',
    );
    // 12 × 485.00 less 10 %, 24 × 312.50 less 10 %, 2,940.00 and 2 × 218.00.
    expect(figure(template, 'subtotal')).toBe('15,364.00\u00a0GBP');
    expect(composed(template).proved.sums).toBeGreaterThan(0);
  });

  it('takes no more figures than it needs, and makes none that are there', () => {
    expect(sheet.document.map(({ name }) => name)).toEqual(['subtotal']);
    expect(sheet.perLine.map(({ name }) => name)).toEqual(['net']);
    expect(tableOf(template, demoSchema, 'lines', ids()).sheet).toBe(sheet);
  });
});

it('a table of another list has its columns', () => {
  const taxed = scheduleOf(empty, demoSchema, 'tax summary')!;
  const holder = { ...empty, sheet: taxed.sheet };
  const { block } = tableOf(holder, demoSchema, taxed.list, ids());
  expect(block.attrs.columns.map(({ heading }) => heading)).toEqual(['Tax category', 'Tax rate', 'Tax base', 'Tax']);
  composed(put(holder, { sheet: taxed.sheet, block }));
  const paid = scheduleOf(empty, demoSchema, 'payment schedule')!;
  expect(paid.list).toBe('payments');
  composed(
    put(
      { ...empty, sheet: paid.sheet },
      { sheet: paid.sheet, block: tableOf({ ...empty, sheet: paid.sheet }, demoSchema, paid.list, ids()).block },
    ),
  );
});

describe('totals', () => {
  it('are offered by what they are', () => {
    const offered = totalsOffered(empty, demoSchema);
    expect(offered.map(({ id, isThere }) => [id, isThere])).toEqual([
      ['discounts', false], ['subtotal', false], ['tax', false], ['total', false], ['deposit', false], ['due', false],
    ]); // prettier-ignore
    const quote = shipped.templates.find(({ id }) => id === 'glasshouse-quote')!;
    expect(totalsOffered(quote, demoSchema).find(({ id }) => id === 'total')!.isThere).toBe(true);
  });

  it('compute what they say, from figures that are made for them', () => {
    const made = totalsOf(empty, demoSchema, ['total', 'subtotal', 'tax'], ids());
    const template = put(empty, made);
    expect(made.block.attrs.rows.map(({ formula, each }) => each ?? formula)).toEqual([
      'subtotal',
      'tax_rows',
      'total',
    ]);
    expect(figure(template, 'total')).toBe('18,436.80\u00a0GBP');
    const all = totalsOf(
      empty,
      demoSchema,
      totalsOffered(empty, demoSchema).map(({ id }) => id),
      ids(),
    );
    expect(figure(put(empty, all), 'total')).toBe('18,436.80\u00a0GBP');
    // 30 % of the total, of base and tax each by itself.
    expect(figure(put(empty, all), 'deposit')).toBe('5,531.04\u00a0GBP');
    expect(figure(put(empty, all), 'after_deposit')).toBe('12,905.76\u00a0GBP');
  });
});

describe('a table in groups', () => {
  const designed = tableOf(empty, demoSchema, 'lines', ids());
  const template = put(empty, designed);
  const grouped = withGroups(template, demoSchema, designed.block.attrs, { formula: 'section', label: 'Group' });
  const table = { ...designed.block.attrs, groups: grouped.groups };
  const inGroups = withTable(table, { ...template, sheet: grouped.sheet });

  it('prints each group with its heading and its sum', () => {
    const { document, findings } = composed(inGroups, 'D-1203');
    expect(findings.filter(({ severity }) => severity === 'stops')).toEqual([]);
    const [printed] = document.body;
    if (printed?.kind !== 'table') throw new Error('no table');
    expect(printed.sections.length).toBeGreaterThan(2);
    expect(printed.sections.every(({ heading, subtotal }) => heading && subtotal)).toBe(true);
    expect(groupedBy({ sheet: grouped.sheet }, table)).toBe('section');
  });

  it('is grouped by something else, or not at all, and leaves no list behind', () => {
    const other = withGroups(inGroups, demoSchema, table, { formula: 'unit', label: 'Unit' });
    expect(other.sheet.lists.map(({ name }) => name)).toEqual(['by_unit']);
    const none = withGroups(inGroups, demoSchema, table, undefined);
    expect([none.groups, none.sheet.lists]).toEqual([undefined, []]);
  });
});

describe('optional lines', () => {
  const { sheet, block } = tableOf(empty, demoSchema, 'lines', ids());
  const template = { ...empty, sheet };
  it.each(OPTIONAL_WAYS.filter((way) => way !== 'own table'))('%s: and back', (way) => {
    const { table, behind } = withOptional(block.attrs, 'optional', way, ids());
    expect([optionalWay(table, 'optional'), behind]).toEqual([way, undefined]);
    composed(withTable(table, template), 'D-1204');
    const back = withOptional(table, 'optional', 'printed', ids()).table;
    expect([back.list, back.columns.map(({ formula }) => formula)]).toEqual([
      'lines',
      block.attrs.columns.map(({ formula }) => formula),
    ]);
  });
  it('get a table of their own, with the same columns', () => {
    const { table, behind } = withOptional(block.attrs, 'optional', 'own table', () => 'behind');
    expect([table.list, behind!.attrs.list]).toEqual(['lines[not optional]', 'lines[optional]']);
    expect(behind!.attrs.columns.some(({ total }) => total)).toBe(false);
    composed(put(withTable(table, template), { sheet, block: behind! }), 'D-1204');
  });
});
