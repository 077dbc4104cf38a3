/** Shipped templates set as pages in one edition after another: every amount that was worked out apart stands on them. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { compose } from '../../core/production/compose';
import { printPdf } from '../../render/pdf/print';
import { Typesetter } from '../../render/typst/typesetter';
import { shipped } from '../../demo/shipped';
import { demoPictures, demoSchema } from '../demo-snapshot';
import { readPages } from '../read-pdf';
import { filedBefore, snapshots, templateOf, workedOut } from './worked-out';

const typesetter = new Typesetter(join(process.cwd(), '.build/press'));
const folder = mkdtempSync(join(tmpdir(), 'lumbix-agreement-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** Worked-out values that a template prints. */
const PRINTED: Record<string, readonly string[]> = {
  'glasshouse-quote': ['lines[not optional and not inside].printed_net', 'lines[optional and not inside].printed_net', 'subtotal', 'tax_rows.tax_amount', 'total'],
  'full-proposal': ['lines[not optional and not inside].printed_net', 'lines[optional and not inside].printed_net', 'sections.section_net', 'subtotal', 'tax_rows.tax_amount', 'total', 'payments.amount'],
  'order-confirmation': ['lines[not optional and not inside].printed_net', 'subtotal', 'tax_rows.tax_amount', 'total', 'deposit'],
  'deposit-invoice': ['tax_rows.base', 'subtotal', 'tax_rows.tax_amount', 'total'],
  'final-invoice': ['lines[not optional and not inside].printed_net', 'subtotal', 'tax_rows.tax_amount', 'total', 'due'],
  'credit-note': ['subtotal', 'tax_total', 'due'],
  'receipt': ['paid.paid_gross', 'received_net', 'received_tax', 'received'],
}; // prettier-ignore

/** How the locales of the editions write numbers, by hand. */
const SIGNS: Record<string, { group: string; decimal: string; leastGrouped: number }> = {
  'en-GB': { group: ',', decimal: '.', leastGrouped: 1 },
  'nl-NL': { group: '.', decimal: ',', leastGrouped: 1 },
  'de-CH': { group: "'", decimal: '.', leastGrouped: 1 },
  'es-ES': { group: '.', decimal: ',', leastGrouped: 2 },
  'ar-AE': { group: ',', decimal: '.', leastGrouped: 1 },
};
const PLACES: Record<string, number> = { JPY: 0, KWD: 3 };

function written(amount: string, currency: string, locale: string): string {
  const { group, decimal, leastGrouped } = SIGNS[locale]!;
  const [whole = '', fraction = ''] = amount.replace('-', '').split('.');
  const grouped = whole.length >= 3 + leastGrouped ? whole.replace(/\B(?=(\d{3})+$)/g, group) : whole;
  const places = PLACES[currency] ?? 2;
  return `${amount.startsWith('-') ? '−' : ''}${grouped}${places === 0 ? '' : decimal + fraction.padEnd(places, '0')}`;
}

const cases = [...snapshots].map(([deal, snapshot], at) => {
  const ids = Object.keys(PRINTED);
  const template = templateOf(ids[at % ids.length]!);
  const edition = template.editions[Math.floor(at / ids.length) % template.editions.length]!;
  return { deal, snapshot, template, edition };
});

describe.each(Object.keys(PRINTED))('%s', (id) => {
  it('prints the amounts that were worked out apart from it', async () => {
    for (const { deal, snapshot, template, edition } of cases.filter((each) => each.template.id === id)) {
      const composition = compose(template, snapshot, {
        schema: demoSchema,
        pins: shipped,
        issueDate: '2026-11-23',
        edition: edition.id,
        registered: filedBefore(snapshot, id),
        number: { serial: 42, text: 'X-2026-0042' },
        available: demoPictures,
      });
      const file = join(folder, 'document.pdf');
      writeFileSync(file, await printPdf(typesetter, composition));
      // Arabic sets a mark of direction before a minus, and a reader may find the sign behind its number.
      const isArabic = edition.locale.startsWith('ar');
      const bare = (text: string) =>
        text
          .replaceAll(/[\u200e\u200f\u061c]/g, '')
          .replace(isArabic ? /−/g : /$^/, '')
          .trim();
      const pages = await readPages(file);
      // A sign from another font is a piece of its own, so numbers are looked for in whole lines too.
      const printed = pages.flatMap(({ items, lines }) => [...items, ...lines].map(({ text }) => bare(text)));
      const worked = workedOut[deal]![`template ${id}`]!;
      // A payment schedule is for larger orders only; where it is left out, it has no table.
      const hasSchedule = JSON.stringify(composition.document.body).includes('payments.amount');
      for (const formula of PRINTED[id]!) {
        if (formula === 'payments.amount' && !hasSchedule) continue;
        for (const amount of [worked[formula]!].flat()) {
          const wanted = bare(written(amount, String(snapshot.fields.currency), edition.locale));
          const found = printed.some(
            (piece) => piece === wanted || piece.split(/\s/).includes(wanted) || standsIn(piece, wanted),
          );
          expect({ deal, edition: edition.id, formula, wanted, found }).toEqual({
            deal,
            edition: edition.id,
            formula,
            wanted,
            found: true,
          });
        }
      }
    }
  }, 600_000);
});

/** Whether a number stands in a text whatever spaces are set within it, and not as a part of a longer number. */
function standsIn(text: string, number: string): boolean {
  const squeezed = text.replaceAll(/\s/g, '');
  const at = squeezed.indexOf(number);
  return at !== -1 && !/\d/.test(squeezed[at + number.length] ?? '');
}
