import type { ComposedBlock } from '../core/template/blocks';
import type { MeaningAmount } from '../core/formula/meanings';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { compose } from '../core/production/compose';
import type { Composition } from '../core/production/composition';
import type { Run } from '../core/template/composed';
import type { RegisteredDocument } from '../core/formula/functions/register';
import { mayFile } from '../core/production/findings/finding';
import type { Edition, Template } from '../core/template/template';
import { phrase } from '../core/words/phrases';
import { demoRecords } from '../demo/crm/index';
import { awkwardDeals } from '../demo/crm/deals';
import { shipped } from '../demo/shipped';
import { demoPictures, demoRecordsFor, demoSchema, demoSnapshot } from '../tests/demo-snapshot';
import { numberIn, readPages, type Line, type ReadPage } from '../tests/read-pdf';
import { printPdf } from './pdf/print';
import { Typesetter } from './typst/typesetter';

/**
 * Every shipped template with every demo deal that it can be filed for, in each of its editions. `npm run gallery` sets
 * them all; the tests set every edition with the awkward deals that ask most, and with a few in its own language.
 */
const WHOLE = process.env.GALLERY === 'whole';

/** One line, 140, none priced, no minor unit, three decimals, right to left, long names, groups, bundles, a photograph. */
const ASKING = ['D-1188', 'D-1192', 'D-1195', 'D-1203', 'D-1205', 'D-1206', 'D-1215', 'D-1218', 'D-1263'];

const typesetter = new Typesetter(join(process.cwd(), '.build/press'));
const folder = mkdtempSync(join(tmpdir(), 'lumbix-gallery-'));
afterAll(() => rmSync(folder, { recursive: true }));

const INVOICED: RegisteredDocument[] = [
  {
    id: 'one',
    number: 'I-2026-0031',
    kind: 'invoice',
    issued: '2026-10-02',
    meanings: {
      'gross-total': { value: '120', currency: 'GBP' },
      'tax-total': { value: '20', currency: 'GBP' },
      'sum-of-lines': { value: '100', currency: 'GBP' },
    },
  },
];

function composed(template: Template, edition: string, deal: string): Composition {
  const snapshot = demoSnapshot(deal);
  const currency = String(snapshot.fields.currency);
  const sums = Object.entries(INVOICED[0]!.meanings).map(([meaning, sum]) => [
    meaning,
    { ...(sum as MeaningAmount), currency },
  ]);
  const meanings = Object.fromEntries(sums);
  return compose(template, snapshot, {
    schema: demoSchema,
    pins: shipped,
    issueDate: '2026-11-23',
    edition,
    registered: ['final-invoice', 'credit-note', 'receipt'].includes(template.id)
      ? [{ ...INVOICED[0]!, meanings }]
      : [],
    number: { serial: 42, text: 'X-2026-0042' },
    available: demoPictures,
  });
}

const languageOf = (deal: string) => demoRecords.deals.find(({ id }) => id === deal)!.quote_language;

const ACCOUNTS = ['A-101', 'A-103', 'A-106', 'A-112'];

function recordsFor(template: Template, edition: Edition): string[] {
  const ids = demoRecordsFor(template);
  if (WHOLE) return ids;
  if (template.record.type === 'Account') return ACCOUNTS;
  const own = ids.filter((id) => !awkwardDeals.has(id) && languageOf(id) === edition.locale.split('-')[0]);
  return [...ASKING, ...own.slice(0, 3)];
}

const plain = (runs: readonly Run[]) => runs.map((run) => (run.kind === 'text' ? run.text : ' ')).join('');

function everyBlock(blocks: readonly ComposedBlock[]): ComposedBlock[] {
  return blocks.flatMap((block) => {
    if (block.kind === 'section' || block.kind === 'keep') return everyBlock(block.blocks);
    return block.kind === 'columns' ? block.columns.flatMap(everyBlock) : [block];
  });
}

for (const template of shipped.templates) {
  describe.each(template.editions.map((edition) => [edition.id, edition] as const))(
    `${template.name}, %s`,
    (_, edition) => {
      const fitting = recordsFor(template, edition)
        .map((deal) => [deal, composed(template, edition.id, deal)] as const)
        .filter(([, { findings }]) => mayFile(findings));

      it('can be filed for some deal', () => expect(fitting.length).toBeGreaterThan(0));

      it.each(fitting)(
        '%s',
        async (deal, composition) => {
          const file = join(folder, `${template.id}-${edition.id}-${deal}.pdf`);
          writeFileSync(file, await printPdf(typesetter, composition));
          expect(execFileSync('qpdf', ['--check', file], { encoding: 'utf8' })).toContain(
            'No syntax or stream encoding errors',
          );
          const fonts = execFileSync('pdffonts', [file], { encoding: 'utf8' }).trim().split('\n').slice(2);
          for (const font of fonts) expect(font).toMatch(/ yes (yes|no) +(yes|no) +\d+ +\d+$/);
          const pages = await readPages(file);
          const own = pages.slice(0, pages.length - composition.annexes.length);
          expectWholePages(own, composition);
          expectNothingUnprintable(own, composition);
          expectSums(own, composition, template.id, edition);
          rmSync(file);
        },
        30_000,
      );
    },
  );
}

function expectWholePages(pages: readonly ReadPage[], { document }: Composition): void {
  const blocks = everyBlock(document.body);
  const rows = blocks.reduce(
    (sum, block) =>
      sum + (block.kind === 'table' ? block.sections.reduce((all, section) => all + section.rows.length, 0) : 0),
    0,
  );
  expect(pages.length).toBeLessThanOrEqual(4 + Math.ceil(rows / 12));
  const { margins } = document.page;
  const headings = new Set(blocks.flatMap((block) => (block.kind === 'heading' ? [squeezed(plain(block.runs))] : [])));
  pages.forEach((page, at) => {
    const [left, right] = [(margins.left / 25.4) * 72 - 2, page.width - (margins.right / 25.4) * 72 + 2];
    for (const item of page.items) {
      expect(item.x, item.text).toBeGreaterThan(left);
      expect(item.x + item.width, item.text).toBeLessThan(right);
      expect(item.y, item.text).toBeGreaterThan(10);
      expect(item.y + item.height, item.text).toBeLessThan(page.height - 10);
    }
    expect(overlapping(page)).toEqual([]);
    const foot = (margins.bottom / 25.4) * 72;
    const inBody = page.lines.filter(({ y }) => y > foot);
    const running = at === 0 ? 0 : 1;
    expect(inBody.length - running, 'a page with next to nothing on it').toBeGreaterThan(at === 0 ? 1 : 2);
    expect(headings.has(squeezed(inBody.at(-1)!.text)), `a heading alone at the foot: ${inBody.at(-1)!.text}`).toBe(
      false,
    );
  });
}

/** Pieces of text that stand on one another. */
function overlapping({ items }: ReadPage): string[] {
  const found: string[] = [];
  const sorted = [...items].sort((a, b) => b.y - a.y);
  sorted.forEach((one, at) => {
    for (const other of sorted.slice(at + 1)) {
      if (one.y - other.y > 30) break;
      const across = Math.min(one.x + one.width, other.x + other.width) - Math.max(one.x, other.x);
      // Between baselines there is room for the lower text's letters.
      const down = other.y + other.height * 0.62 - one.y;
      if (across > 2 && down > 0.5 && one.y - other.y > 1) found.push(`${one.text} | ${other.text}`);
    }
  });
  return found;
}

function expectNothingUnprintable(pages: readonly ReadPage[], composition: Composition): void {
  const text = pages.flatMap(({ lines }) => lines.map((line) => line.text)).join('\n');
  expect(text).not.toMatch(/=\[(?!ref)|undefined|\[object|NaN|LABEL\(|\uFFFD/);
  for (const block of everyBlock(composition.document.body)) {
    if (block.kind !== 'totals') continue;
    for (const row of block.rows) expect([plain(row.label).trim(), plain(row.value).trim()]).not.toContain('');
  }
  expect(composition.findings.filter(({ id }) => id.startsWith('words'))).toEqual([]);
}

/** What is printed adds up: lines to the subtotal, and that with the taxes to the total. */
function expectSums(
  pages: readonly ReadPage[],
  { document }: Composition,
  template: string,
  { locale }: Edition,
): void {
  const word = (english: string) => phrase(english, locale);
  const blocks = everyBlock(document.body);
  const totals = blocks.find((block) => block.kind === 'totals');
  if (!totals || template === 'delivery-note' || template === 'receipt') return;
  const table = blocks.slice(0, blocks.indexOf(totals)).find((block) => block.kind === 'table');
  const heading = table?.kind === 'table' ? squeezed(plain(table.columns.at(-1)!.heading)) : undefined;
  const foot = (document.page.margins.bottom / 25.4) * 72;
  const all = pages.flatMap(({ lines }) => lines.filter(({ y }) => y > foot));
  const rtl = document.direction === 'rtl';
  const headings = table?.kind === 'table' ? table.columns.map((column) => plain(column.heading)).join('') : '';
  const from = heading
    ? all.findIndex(({ text }) => (rtl ? sameLetters(text, headings) : squeezed(text).includes(heading)))
    : 0;
  const amounts = lastColumn(all.slice(from), document.direction, locale);
  const isLabel = (line: Line, label: string) =>
    rtl ? sameLetters(line.text, label) : squeezed(line.text).includes(squeezed(label));
  const words = [word('Carried forward'), word('Brought forward')];
  // A reader takes the doubled letter of the Arabic words apart, so there the first word has to do.
  const isTold = (line: Line, each: string) =>
    rtl ? line.text.includes(each.split(' ')[0]!) && !isLabel(line, word('Subtotal')) : isLabel(line, each);
  const counted = amounts.filter(({ line }) => !words.some((each) => isTold(line, each)));
  const subtotalLabel = template === 'service-agreement' ? 'Per year GBP' : word('Subtotal');
  const at = counted.findIndex(({ line }) =>
    isLabel(line, subtotalLabel.replace('GBP', plain(totals.rows.at(-1)!.label).split(' ')[2]?.replace(',', '') ?? '')),
  );
  expect(at, `no ${subtotalLabel} on the page`).toBeGreaterThanOrEqual(0);
  const skipped = [word('List value'), word('Discounts'), 'Over '];
  const groups = everyBlock(document.body)
    .flatMap((block) => (block.kind === 'table' ? block.sections : []))
    .flatMap(({ subtotal }) => (subtotal ? [plain(subtotal.label)] : []));
  const lines = (table ? counted.slice(0, at) : []).filter(
    ({ line }) =>
      !skipped.some((each) => line.text.startsWith(each) || (rtl && isLabel(line, each))) &&
      !groups.some((group) => line.items.length === 2 && line.items[0]!.text === group),
  );
  const sum = (values: readonly bigint[]) => values.reduce((all, each) => all + each, 0n);
  const places = Math.max(...counted.map(({ value }) => value.places));
  const units = ({ value }: { value: { digits: bigint; places: number } }) =>
    value.digits * 10n ** BigInt(places - value.places);
  const summed = template === 'credit-note' ? counted.findIndex(({ line }) => isLabel(line, 'In your favour')) : at;
  expect(sum(lines.map(units)), 'lines add up to the subtotal').toBe(units(counted[summed]!));
  if (template === 'service-agreement') return;
  const total = counted.findIndex(
    ({ line }, index) => index > at && (isLabel(line, word('Total')) || isLabel(line, 'In your favour')),
  );
  expect(sum(counted.slice(at, total).map(units)), 'subtotal and taxes add up to the total').toBe(
    units(counted[total]!),
  );
}

/** The numbers at the outer edge of the page, from top to bottom, with the lines they stand in. */
function lastColumn(lines: readonly Line[], direction: 'ltr' | 'rtl', locale: string) {
  const found = lines.flatMap((line) => {
    const item = direction === 'rtl' ? line.items[0] : line.items.at(-1);
    const value = item && numberIn(item.text, locale);
    return value ? [{ line, value, edge: item.x + item.width }] : [];
  });
  // A table with bands stands in by 6 points from the totals under it; an Arabic one ends where its widest sum does.
  const totals = found.at(-1)?.edge ?? 0;
  const near = (each: { edge: number }) => Math.abs(each.edge - totals) < (direction === 'rtl' ? 60 : 8);
  return found.filter(near);
}

/** Whether both have the same Arabic letters, in whatever order and form a reader takes them from the page. */
function sameLetters(one: string, other: string): boolean {
  const letters = (text: string) =>
    [...new Set(text.normalize('NFKC').replace(/[^\u0621-\u064a]/g, ''))].sort().join('');
  return letters(one) !== '' && letters(one) === letters(other);
}

const squeezed = (text: string): string => text.replace(/[\s\u2066-\u2069\u200b]+/g, '');
