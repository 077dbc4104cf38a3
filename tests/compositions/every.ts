/** Every shipped template composed in each of its editions for every demo deal, as text that can be compared. */
import { createHash } from 'node:crypto';
import { composing, type ComposeContext } from '../../core/production/compose';
import type { RegisteredDocument } from '../../core/formula/functions/register';
import { shipped } from '../../demo/shipped';
import { demoPictures, demoRecordsFor, demoSchema, demoSnapshot } from '../demo-snapshot';

/** Digests by `template edition`, then by deal. */
export type Digests = Record<string, Record<string, string>>;

const templateOf = (id: string) => shipped.templates.find((each) => each.id === id)!;

/** What was filed for a deal before a document of this kind: a deposit before the final invoice, both before a credit and a receipt. */
function filedBefore(template: string, deal: string): RegisteredDocument[] {
  if (template === 'final-invoice') return [filed('deposit-invoice', deal, [])];
  if (template !== 'credit-note' && template !== 'receipt') return [];
  const deposit = filed('deposit-invoice', deal, []);
  return [deposit, filed('final-invoice', deal, [deposit])];
}

function filed(template: string, deal: string, registered: RegisteredDocument[]): RegisteredDocument {
  const { meanings } = composed(template, deal, { registered }).composition;
  return { id: template, number: `N-${registered.length + 1}`, kind: 'invoice', issued: '2026-10-01', meanings };
}

function composed(id: string, deal: string, more: Partial<ComposeContext>) {
  const template = templateOf(id);
  const available = demoPictures;
  const context = {
    schema: demoSchema,
    pins: shipped,
    issueDate: '2026-11-23',
    timeZone: 'Europe/Amsterdam',
    available,
  };
  return composing(template, demoSnapshot(deal), { ...context, ...more });
}

/**
 * The composition of one deal, in the first edition with the workings of each value; without the bytes of its pictures, which
 * are named by hash.
 */
export function compositionText(template: string, edition: string, deal: string): string {
  const registered = filedBefore(template, deal);
  const { composition, explainAll } = composed(template, deal, { edition, registered });
  const { assets, ...rest } = composition;
  return JSON.stringify(
    sorted({
      ...rest,
      assets: Object.keys(assets).sort(),
      ...(edition === templateOf(template).editions[0]!.id && { workings: explainAll() }),
    }),
    null,
    1,
  );
}

/** Keys in one order, so that the order in which they are written makes no difference. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted);
  if (typeof value !== 'object' || value === null) return value;
  const entries = Object.entries(value).map(([key, each]): [string, unknown] => [key, sorted(each)]);
  return Object.fromEntries(entries.sort(([one], [other]) => (one < other ? -1 : 1)));
}

export const editions: readonly { template: string; edition: string }[] = shipped.templates.flatMap((template) =>
  template.editions.map(({ id }) => ({ template: template.id, edition: id })),
);

/** The digests of every composition of one edition, by record. */
export function digestsOf(template: string, edition: string): Record<string, string> {
  const records = demoRecordsFor(templateOf(template));
  return Object.fromEntries(records.map((deal) => [deal, digest(compositionText(template, edition, deal))]));
}

const digest = (text: string) => createHash('sha256').update(text).digest('hex').slice(0, 10);
