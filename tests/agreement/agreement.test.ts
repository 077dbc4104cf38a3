/**
 * Every ready-made sheet and every shipped template against an independent calculator, over the demo's awkward deals and
 * random ones: as computed here; `pages.test.ts` beside it as read back from the pages. `npm run agreement` takes 1,000 deals
 * of another seed each day.
 */
import { execFileSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { CALCULATIONS } from '../../core/calculations';
import { compose } from '../../core/compose/compose';
import type { Composition } from '../../core/compose/composition';
import type { FigureSheet } from '../../core/formula/figure';
import type { RegisteredDocument } from '../../core/formula/functions/register';
import { rolesOf } from '../../core/formula/role-values';
import { Sheet } from '../../core/formula/sheet';
import { formatValue, type Value } from '../../core/formula/value';
import type { RecordSnapshot } from '../../core/record/snapshot';
import { documentRoots } from '../../core/template/roots';
import type { Template } from '../../core/template/template';
import { awkwardDeals } from '../../demo/crm/deals';
import { demoRecords } from '../../demo/crm/index';
import { shipped } from '../../demo/shipped';
import { demoSchema, snapshotFrom } from '../demo-snapshot';
import { brokenRules } from './en16931';
import { randomDeals } from './random-deals';

/** 23 November 2026. */
const ISSUED = 20_780;
const WHOLE = process.env.AGREEMENT === 'whole';
const SEED = Number(process.env.AGREEMENT_SEED ?? 20_261_123);

const random = randomDeals(WHOLE ? 1_000 : 200, SEED);
const records = {
  ...random,
  deals: [...demoRecords.deals.filter(({ id }) => awkwardDeals.has(id)), ...random.deals],
  lineItems: [...demoRecords.lineItems, ...random.lineItems],
};
type Expected = Record<string, Record<string, Record<string, string | string[]>>>;
const expected = JSON.parse(
  execFileSync('python3', ['tests/agreement/calculator.py'], { input: JSON.stringify(records), maxBuffer: 2 ** 28, encoding: 'utf8' }),
) as Expected; // prettier-ignore
const snapshots = new Map(Object.keys(expected).map((id) => [id, snapshotFrom(records, id)]));

const templateOf = (id: string) => shipped.templates.find((each) => each.id === id)!;

function sheetOf(sheet: FigureSheet, snapshot: RecordSnapshot, registered: readonly RegisteredDocument[]): Sheet {
  const company = shipped.houseStyles[0]!.company;
  return new Sheet({
    sheet,
    schema: demoSchema,
    snapshot,
    root: 'deal',
    roots: documentRoots({ company, issueDate: '2026-11-23', edition: 'en', locale: 'en-GB', number: undefined }),
    locale: 'en-GB',
    today: ISSUED,
    registered,
  });
}

/** The deal's invoices before this one: a deposit before the final invoice, both before the credit note. */
function history(snapshot: RecordSnapshot, before: string): RegisteredDocument[] {
  const filed = (id: string, sheet: Sheet): RegisteredDocument => ({ id, number: id, kind: 'invoice', issued: '2026-10-01', roles: rolesOf(sheet) }); // prettier-ignore
  if (!/final-invoice|credit-note/.test(before)) return [];
  const deposit = filed('I-1', sheetOf(templateOf('deposit-invoice').sheet, snapshot, []));
  if (before.includes('final-invoice')) return [deposit];
  return [deposit, filed('I-2', sheetOf(templateOf('final-invoice').sheet, snapshot, [deposit]))];
}

const SHEETS: Record<string, FigureSheet> = Object.fromEntries([
  ...CALCULATIONS.map(({ id, sheet }) => [id, sheet] as const),
  ...shipped.templates.map(({ id, sheet }) => [`template ${id}`, sheet] as const),
]);

function plain(value: Value): string | string[] {
  if (value.type === 'money') return value.value.toFixed();
  return value.type === 'list' ? (value.items.map(plain) as string[]) : formatValue(value, 'en-GB');
}
const trimmed = (text: string) => (text.includes('.') ? text.replace(/\.?0+$/, '') : text);

describe.each(Object.keys(Object.values(expected)[0]!))('%s', (id) => {
  it('comes to what was worked out apart from it', () => {
    let compared = 0;
    for (const [deal, sheets] of Object.entries(expected)) {
      if (!sheets[id]) continue;
      const snapshot = snapshots.get(deal)!;
      const sheet = sheetOf(SHEETS[id]!, snapshot, history(snapshot, id));
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
    for (const deal of Object.keys(expected)) {
      const snapshot = snapshots.get(deal)!;
      const sheet = sheetOf(SHEETS[id]!, snapshot, history(snapshot, id));
      for (const { column, figure } of SHEETS[id]!.sums) {
        const { value } = sheet.evaluate('sum', `SUM(${column}) = figures.${figure}`);
        if (id === 'margin' && value.type === 'error') continue;
        expect({ deal, column, value }).toEqual({ deal, column, value: { type: 'boolean', value: true } });
      }
    }
  });
});

const COMPOSED = shipped.templates.filter(({ id }) => id !== 'delivery-note');

describe.each(COMPOSED.map((template) => [template.id, template] as const))('the template %s, composed', (id, template) => {
  it('prints columns that add up, and keeps the rules of EN 16931', () => {
    for (const [deal, snapshot] of snapshots) {
      const { findings, roles } = composed(template, snapshot);
      const stops = findings.filter(({ id: finding }) => /^(printed|sum|error)/.test(finding));
      expect({ deal, stops: stops.map(({ sentence }) => sentence) }).toEqual({ deal, stops: [] });
      if (/invoice|credit note|quote|proposal|order/.test(template.kind)) expect({ deal, broken: brokenRules(roles) }).toEqual({ deal, broken: [] });
    }
  });
}); // prettier-ignore

function composed(template: Template, snapshot: RecordSnapshot): Composition {
  return compose(template, snapshot, {
    schema: demoSchema,
    pins: shipped,
    issueDate: '2026-11-23',
    registered: history(snapshot, template.id),
    number: { serial: 1, text: 'X-1' },
  });
}
