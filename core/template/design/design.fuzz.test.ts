import fc from 'fast-check';
import { expect, it } from 'vitest';
import { shipped } from '../../../demo/shipped';
import { demoPictures, demoSchema, demoSnapshot } from '../../../tests/demo-snapshot';
import { propertyRuns } from '../../../tests/property-runs';
import { compose } from '../../production/compose';
import type { LineTable, LineTableBlock } from '../blocks/line-table';
import { faultsOf } from '../gate';
import { newTemplate } from '../starter';
import type { Template } from '../template';
import { OPTIONAL_WAYS } from './optional-ways';
import { tableOf, withGroups, withOptional } from './tables';
import { scheduleOf, totalsOf, totalsOffered } from './totals';

const AROUND = { schema: demoSchema, houseStyle: 'orrin-vale', series: 'quote' };
const empty = newTemplate({ name: 'Empty', kind: 'quote', recordType: 'Deal', from: 'empty' }, AROUND);
const FIELDS = ['section', 'unit', 'optional', 'billing'];
const DEALS = ['D-1187', 'D-1197', 'D-1203', 'D-1204', 'D-1190'];

let count = 0;
const newId = () => `made-${++count}`;
const put = (template: Template, sheet: Template['sheet'], ...blocks: Template['layout']['body']): Template => ({
  ...template,
  sheet,
  layout: { ...template.layout, body: [...template.layout.body, ...blocks] },
});
const tablesIn = (template: Template) =>
  template.layout.body.filter((block): block is LineTableBlock => block.type === 'lineTable');
const withTable = (template: Template, id: string, change: (table: LineTable) => LineTable): Template => ({
  ...template,
  layout: {
    ...template.layout,
    body: template.layout.body.map((block) =>
      block.type === 'lineTable' && block.attrs.id === id ? { ...block, attrs: change(block.attrs) } : block,
    ),
  },
});
/** A step about one of the tables there are. */
const aboutTable = (template: Template, at: number, step: (table: LineTable) => Template): Template => {
  const all = tablesIn(template).filter(({ attrs }) => attrs.list.startsWith('lines'));
  const table = all[at % Math.max(1, all.length)];
  return table ? step(table.attrs) : template;
};

/** What one step of designing does, told as two numbers. */
const STEPS: readonly ((template: Template, a: number, b: number) => Template)[] = [
  (template) => {
    const { sheet, block } = tableOf(template, demoSchema, 'lines', newId);
    return put(template, sheet, block);
  },
  (template, a) => {
    const found = scheduleOf(template, demoSchema, a % 2 ? 'tax summary' : 'payment schedule')!;
    const { sheet, block } = tableOf({ ...template, sheet: found.sheet }, demoSchema, found.list, newId);
    return put(template, sheet, block);
  },
  (template, a) => {
    const offers = totalsOffered(template, demoSchema).map(({ id }) => id);
    const wanted = offers.filter((_, at) => (a >> at) % 2 === 1);
    if (wanted.length === 0) return template;
    const { sheet, block } = totalsOf(template, demoSchema, wanted, newId);
    return put(template, sheet, block);
  },
  (template, a, b) =>
    aboutTable(template, a, (table) => {
      const by = b % 5 === 4 ? undefined : { formula: FIELDS[b % 4]!, label: 'Group' };
      const { sheet, groups } = withGroups(template, demoSchema, table, by);
      return withTable({ ...template, sheet }, table.id, ({ groups: _, ...rest }) => ({
        ...rest,
        ...(groups && { groups }),
      }));
    }),
  (template, a, b) =>
    aboutTable(template, a, (table) => {
      const { table: next, behind } = withOptional(table, 'optional', OPTIONAL_WAYS[b % 4]!, newId);
      const changed = withTable(template, table.id, () => next);
      return behind ? put(changed, changed.sheet, behind) : changed;
    }),
  (template, a, b) =>
    aboutTable(template, a, (table) =>
      withTable(template, table.id, (own) => {
        const columns = own.columns.toSpliced(b % own.columns.length, 1);
        return columns.length > 0 ? { ...own, columns } : own;
      }),
    ),
  (template, a, b) =>
    aboutTable(template, a, (table) =>
      withTable(template, table.id, (own) => {
        const [first] = own.columns.slice(b % own.columns.length);
        const others = own.columns.filter((each) => each !== first);
        return { ...own, columns: [...others, first!] };
      }),
    ),
];

const steps = fc.array(fc.tuple(fc.nat({ max: STEPS.length - 1 }), fc.nat({ max: 63 }), fc.nat({ max: 63 })), {
  minLength: 1,
  maxLength: 8,
});

it('whatever is designed passes the gate, and composes for any record', () => {
  fc.assert(
    fc.property(steps, fc.constantFrom(...DEALS), (all, deal) => {
      const template = all.reduce((now, [step, a, b]) => STEPS[step]!(now, a, b), empty);
      expect(faultsOf(template, shipped, demoSchema).faults).toEqual([]);
      const { document } = compose(template, demoSnapshot(deal), {
        schema: demoSchema,
        pins: shipped,
        issueDate: '2026-11-27',
        available: demoPictures,
      });
      expect(document.body.length).toBeGreaterThanOrEqual(0);
    }),
    { numRuns: propertyRuns(60) },
  );
}, 120_000);
