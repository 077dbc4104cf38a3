/**
 * Every ready-made sheet and every shipped template against an independent calculator, over the demo's awkward deals and
 * random ones: as computed here; `pages.test.ts` beside it as read back from the pages. `npm run agreement` takes 1,000 deals
 * of another seed each day.
 */
import { describe, expect, it } from 'vitest';
import { CALCULATIONS } from '../../core/calculations';
import { compose } from '../../core/production/compose';
import type { Composition } from '../../core/production/composition';
import type { FigureSheet } from '../../core/sheet/figure';
import { formatValue, type Value } from '../../core/formula/value';
import type { RecordSnapshot } from '../../core/record/snapshot';
import type { Template } from '../../core/template/template';
import { shipped } from '../../demo/shipped';
import { demoSchema } from '../demo-snapshot';
import { brokenRules } from './en16931';
import { filedBefore, sheetOf, snapshots, workedOut } from './worked-out';

const SHEETS: Record<string, FigureSheet> = Object.fromEntries([
  ...CALCULATIONS.map(({ id, sheet }) => [id, sheet] as const),
  ...shipped.templates.map(({ id, sheet }) => [`template ${id}`, sheet] as const),
]);

function plain(value: Value): string | string[] {
  if (value.type === 'money') return value.value.toFixed();
  return value.type === 'list' ? (value.items.map(plain) as string[]) : formatValue(value, 'en-GB');
}
const trimmed = (text: string) => (text.includes('.') ? text.replace(/\.?0+$/, '') : text);

describe.each(Object.keys(Object.values(workedOut)[0]!))('%s', (id) => {
  it('comes to what was worked out apart from it', () => {
    let compared = 0;
    for (const [deal, sheets] of Object.entries(workedOut)) {
      if (!sheets[id]) continue;
      const snapshot = snapshots.get(deal)!;
      const sheet = sheetOf(SHEETS[id]!, snapshot, filedBefore(snapshot, id));
      for (const [formula, wanted] of Object.entries(sheets[id])) {
        const { value } = sheet.evaluate(formula, formula);
        const texts = Array.isArray(wanted) ? wanted.map(trimmed) : trimmed(wanted);
        expect({ deal, formula, value: plain(value) }).toEqual({ deal, formula, value: texts });
        compared++;
      }
    }
    expect(compared).toBeGreaterThan(100);
  });

  it('adds up, column by column', () => {
    for (const deal of Object.keys(workedOut)) {
      const snapshot = snapshots.get(deal)!;
      const sheet = sheetOf(SHEETS[id]!, snapshot, filedBefore(snapshot, id));
      for (const { column, figure } of SHEETS[id]!.sums) {
        const { value } = sheet.evaluate('sum', `SUM(${column}) = figures.${figure}`);
        if (id === 'margin' && value.type === 'error') continue;
        expect({ deal, column, value }).toEqual({ deal, column, value: { type: 'boolean', value: true } });
      }
    }
  });
});

const COMPOSED = shipped.templates.filter(({ id, record }) => id !== 'delivery-note' && record.type === 'Deal');

describe.each(COMPOSED.map((template) => [template.id, template] as const))(
  'the template %s, composed',
  (id, template) => {
    it('prints columns that add up, and keeps the rules of EN 16931', () => {
      for (const [deal, snapshot] of snapshots) {
        const { findings, meanings } = composed(template, snapshot);
        const stops = findings.filter(({ id: finding }) => /^(printed|sum|error)/.test(finding));
        expect({ deal, stops: stops.map(({ sentence }) => sentence) }).toEqual({ deal, stops: [] });
        if (/invoice|credit note|quote|proposal|order/.test(template.kind))
          expect({ deal, broken: brokenRules(meanings) }).toEqual({ deal, broken: [] });
      }
    });
  },
);

function composed(template: Template, snapshot: RecordSnapshot): Composition {
  return compose(template, snapshot, {
    schema: demoSchema,
    pins: shipped,
    issueDate: '2026-11-23',
    registered: filedBefore(snapshot, template.id),
    number: { serial: 1, text: 'X-1' },
  });
}
