/** Composing and setting, beside Chromium printing HTML and pdfmake setting the same content. Every document of a row is unique. */
import { chromium } from '@playwright/test';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Composition } from '../../core/production/composition';
import { Typesetter } from '../../render/typst/typesetter';
import { chromiumOptions } from '../chromium';
import { medianOf, ms } from './median';
import { composed, proposal, quote } from './quotes';
import { asHtml, withPdfmake } from './rivals';

const typesetter = new Typesetter(`${process.cwd()}/.build/press`);
const browser = await chromium.launch(chromiumOptions);
const page = await browser.newPage();
const folder = mkdtempSync(join(tmpdir(), 'lumbix-bench-'));
const file = join(folder, 'quote.html');
let unique = 0;

const write = (line: string) => process.stdout.write(`${line}\n`);

/** A proof after an edit: one word at the end or at the beginning changes, everything else stays, as it does under a person's hands. */
function proofed({ document, assets }: Composition, where: 'end' | 'beginning'): void {
  const edit = {
    kind: 'paragraph' as const,
    block: 'edit',
    align: 'start' as const,
    runs: [{ kind: 'text' as const, text: `Edit ${unique++}` }],
  };
  const body = where === 'end' ? [...document.body, edit] : [edit, ...document.body];
  typesetter.proof({ ...document, body }, assets);
}

async function printedByChromium(composition: Composition): Promise<void> {
  writeFileSync(file, asHtml(composition));
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
}

function set({ document, assets }: Composition): void {
  typesetter.pdf(document, assets);
}

async function row(title: string, rounds: number, made: (word: string) => Composition): Promise<void> {
  const median = (round: () => unknown) => medianOf(round, rounds);
  const next = () => made(`number ${unique++}`);
  const composing = await median(next);
  const cold = await median(() => set(next()));
  const edited = await median(() => proofed(made('in proof'), 'end'));
  const editedAbove = await median(() => proofed(made('in proof'), 'beginning'));
  const printed = await median(() => printedByChromium(next()));
  const byPdfmake = await median(() => withPdfmake(next().document));
  write(`\n${title}`);
  write(`  compose                         ${ms(composing)}`);
  write(`  compose + PDF, cold             ${ms(cold)}`);
  write(`  compose + proof, after an edit  ${ms(edited)}`);
  write(`  the same, above everything else ${ms(editedAbove)}`);
  write(`  compose + Chromium print        ${ms(printed)}   cold PDF takes ${(cold / printed).toFixed(2)} of it`);
  write(`  compose + pdfmake               ${ms(byPdfmake)}   cold PDF takes ${(cold / byPdfmake).toFixed(2)} of it`);
}

for (const lines of [12, 40, 140, 1_000])
  await row(`${lines} lines`, lines > 500 ? 4 : 12, (word) => composed(quote(lines, word)));
await row('Full proposal, a photograph and a picture for each of its ten items', 12, proposal);
await browser.close();
rmSync(folder, { recursive: true });
