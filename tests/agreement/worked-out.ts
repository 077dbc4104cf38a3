/** The deals of the comparison, what they come to by the independent calculator, and what was filed for each before. */
import { execFileSync } from 'node:child_process';
import type { FigureSheet } from '../../core/sheet/figure';
import type { RegisteredDocument } from '../../core/formula/functions/register';
import { meaningsOf } from '../../core/sheet/figure-meanings';
import { Sheet } from '../../core/sheet/sheet';
import type { RecordSnapshot } from '../../core/record/snapshot';
import { documentRoots } from '../../core/template/roots';
import { demoRecords } from '../../demo/crm/index';
import { shipped } from '../../demo/shipped';
import { demoSchema, snapshotFrom } from '../demo-snapshot';
import { randomDeals } from './random-deals';

/** 1,000 deals where `AGREEMENT=whole`, else 200; `AGREEMENT_SEED` chooses others. */
const WHOLE = process.env.AGREEMENT === 'whole';
const SEED = Number(process.env.AGREEMENT_SEED ?? 20_261_123);

const random = randomDeals(WHOLE ? 1_000 : 200, SEED);
const records = {
  ...random,
  deals: [...demoRecords.deals, ...random.deals],
  lineItems: [...demoRecords.lineItems, ...random.lineItems],
};

/** By deal, by sheet (`template …` for a shipped template), by formula: decimal text, or a list of them. */
export type WorkedOut = Record<string, Record<string, Record<string, string | string[]>>>;

export const workedOut = JSON.parse(
  execFileSync('python3', ['tests/agreement/calculator.py'], {
    input: JSON.stringify(records),
    maxBuffer: 2 ** 28,
    encoding: 'utf8',
  }),
) as WorkedOut;

/** Each deal that can be worked out, as a connector would read it. */
export const snapshots = new Map(Object.keys(workedOut).map((id) => [id, snapshotFrom(records, id)]));

export const templateOf = (id: string) => shipped.templates.find((each) => each.id === id)!;

/** A figure sheet over a deal, on 23 November 2026. */
export function sheetOf(
  sheet: FigureSheet,
  snapshot: RecordSnapshot,
  registered: readonly RegisteredDocument[],
): Sheet {
  const { company } = shipped.houseStyles[0]!;
  return new Sheet({
    sheet,
    schema: demoSchema,
    snapshot,
    root: 'deal',
    roots: documentRoots({ company, issueDate: '2026-11-23', edition: 'en', locale: 'en-GB' }),
    locale: 'en-GB',
    today: 20_780,
    registered,
  });
}

/** The deal's invoices before this one: a deposit before the final invoice, both before the credit note and the receipt. */
export function filedBefore(snapshot: RecordSnapshot, sheet: string): RegisteredDocument[] {
  if (!/final-invoice|credit-note|receipt/.test(sheet)) return [];
  const deposit = filed('I-1', sheetOf(templateOf('deposit-invoice').sheet, snapshot, []));
  if (sheet.includes('final-invoice')) return [deposit];
  return [deposit, filed('I-2', sheetOf(templateOf('final-invoice').sheet, snapshot, [deposit]))];
}

function filed(id: string, sheet: Sheet): RegisteredDocument {
  return { id, number: id, kind: 'invoice', issued: '2026-10-01', meanings: meaningsOf(sheet) };
}
