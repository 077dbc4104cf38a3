/**
 * Measures composing and setting, beside Chromium printing HTML and pdfmake setting the same content, in one run, as
 * ratios: this machine's own speed drops out. Every document of a row is unique. `npm run bench`.
 */
import { chromium } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import LibraryDecimal from 'decimal.js';
import { checkSheet } from '../core/formula/check-sheet';
import { Sheet } from '../core/formula/sheet';
import { Decimal } from '../core/money/decimal';
import type { RecordSnapshot } from '../core/record/snapshot';
import { Typesetter } from '../render/typst/typesetter';
import { benchDeal, benchInput, benchLine, benchSchema, benchSheet, hundredFigures } from './bench/figures';
import { composed, quote } from './bench/quotes';
import { asHtml, withPdfmake } from './bench/rivals';
import { chromiumOptions } from './chromium';

const ROUNDS = 12;
/** Short work is measured oftener: one round of it says little on a machine that others use too. */
const SHORT_ROUNDS = 60;
const typesetter = new Typesetter(`${process.cwd()}/.build/press`);
const browser = await chromium.launch(chromiumOptions);
const page = await browser.newPage();
const folder = mkdtempSync(join(tmpdir(), 'lumbix-bench-'));
const file = join(folder, 'quote.html');
let unique = 0;

/** Median of some rounds in milliseconds, after two that do not count. */
async function median(round: () => unknown, rounds = ROUNDS): Promise<number> {
  const times: number[] = [];
  for (let index = 0; index < rounds + 2; index++) {
    const start = performance.now();
    await round();
    if (index >= 2) times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[Math.floor(rounds / 2)]!;
}
const write = (line: string) => process.stdout.write(`${line}\n`);
const ms = (time: number) => `${time.toFixed(1).padStart(8)} ms`;

await measureFigures();

for (const lines of [12, 40, 140]) {
  const next = () => quote(lines, `number ${unique++}`);
  const composing = await median(() => composed(next()));
  const cold = await median(() => {
    const { document, assets } = composed(next());
    typesetter.pdf(document, assets);
  });
  // One word of the last block changes; everything else stays, as it does under a person's hands.
  const edited = await median(() => {
    const { document, assets } = composed(quote(lines, 'in proof'));
    const terms = document.body.at(-1);
    if (terms?.kind === 'keep' && terms.blocks[0]?.kind === 'heading')
      terms.blocks[0].runs = [{ kind: 'text', text: `Terms ${unique++}` }];
    typesetter.proof(document, assets);
  });
  const printed = await median(async () => {
    writeFileSync(file, asHtml(composed(next())));
    await page.goto(`file://${file}`);
    const footerTemplate =
      '<span style="font-size:8pt">Page <span class="pageNumber"></span> of <span class="totalPages"></span></span>';
    await page.pdf({
      preferCSSPageSize: true,
      tagged: true,
      displayHeaderFooter: true,
      headerTemplate: '<span></span>',
      footerTemplate,
    });
  });
  const made = await median(() => withPdfmake(composed(next()).document));
  write(`\n${lines} lines`);
  write(`  compose                         ${ms(composing)}`);
  write(`  compose + PDF, cold             ${ms(cold)}`);
  write(`  compose + proof, after an edit  ${ms(edited)}`);
  write(`  compose + Chromium print        ${ms(printed)}   cold PDF takes ${(cold / printed).toFixed(2)} of it`);
  write(`  compose + pdfmake               ${ms(made)}   cold PDF takes ${(cold / made).toFixed(2)} of it`);
}
await browser.close();
rmSync(folder, { recursive: true });

const [before, after] = execFileSync('npx', ['tsx', 'tools/bench/memory.ts', '1000'], { encoding: 'utf8' })
  .trim()
  .split(/\s+/)
  .slice(-2);
write(`\nMemory of a process that sets 1,000 quotes: ${before} MiB at the start, ${after} MiB at the end.`);

/** The figure sheet alone: a deal of 1,000 lines with 10 figures each, and 25 of the document. */
async function measureFigures(): Promise<void> {
  const all = (sheet: Sheet) => {
    for (const { name } of benchSheet.document) sheet.figure(name);
    const lines = sheet.record.value('lines');
    const items = lines.type === 'list' ? lines.items : [];
    for (const item of items)
      if (item.type === 'record') for (const figure of benchSheet.perLine) sheet.itemFigure(item.row, figure);
  };
  const deal = benchDeal(1_000);
  const lines = deal.fields.lines as RecordSnapshot[];
  const computing = await median(() => all(new Sheet(benchInput(deal))), SHORT_ROUNDS);
  const kept = new Sheet(benchInput(deal));
  all(kept);
  const changing = await median(() => {
    const changed = lines.map((line, at) => (at === 500 ? benchLine(at, String(++unique)) : line));
    kept.update({ ...deal, fields: { ...deal.fields, lines: changed } });
    all(kept);
  }, SHORT_ROUNDS);
  const context = { sheet: hundredFigures, schema: benchSchema, record: { type: 'Deal', root: 'deal' }, roots: {} };
  const checking = await median(() => checkSheet(context), SHORT_ROUNDS);
  const [product, sum] = [Decimal.of('48.50').times(Decimal.of('0.9')), LibraryDecimal.mul('48.50', '0.9')];
  const ours = await median(() => {
    for (let at = 0; at < 20_000; at++) product.times(product).plus(product).round(2);
  }, SHORT_ROUNDS);
  const library = await median(() => {
    for (let at = 0; at < 20_000; at++) sum.times(sum).plus(sum).toDecimalPlaces(2);
  }, SHORT_ROUNDS);
  write('Figures: 1,000 lines with 10 figures each, 25 of the document');
  write(`  all of them                     ${ms(computing)}`);
  write(`  after one quantity changed      ${ms(changing)}   ${(changing / computing).toFixed(2)} of all`);
  write(`  checking 100 figures            ${ms(checking)}`);
  write(`  20,000 products, sums, roundings${ms(ours)}   ${(ours / library).toFixed(2)} of decimal.js`);
}
