/**
 * Measures composing and setting, beside Chromium printing HTML and pdfmake setting the same content, in one run, as
 * ratios: this machine's own speed drops out. Every document of a row is unique. `npm run bench`.
 */
import { chromium } from '@playwright/test';
import { buildSync } from 'esbuild';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Composition } from '../core/production/composition';
import { Typesetter } from '../render/typst/typesetter';
import { YOUNG_GENERATION_FLAG } from '../server/press/young-generation';
import { medianOf, ms } from './bench/median';
import { composed, proposal, quote } from './bench/quotes';
import { asHtml, withPdfmake } from './bench/rivals';
import { chromiumOptions } from './chromium';

const ROUNDS = 12;
const typesetter = new Typesetter(`${process.cwd()}/.build/press`);
const browser = await chromium.launch(chromiumOptions);
const page = await browser.newPage();
const folder = mkdtempSync(join(tmpdir(), 'lumbix-bench-'));
const file = join(folder, 'quote.html');
let unique = 0;

const median = (round: () => unknown) => medianOf(round, ROUNDS);
const write = (line: string) => process.stdout.write(`${line}\n`);

// Bundled as it is served, with the press's room for young objects: a loader that keeps functions' names would be measured with it.
buildSync({
  entryPoints: ['tools/bench/figures-main.ts'],
  bundle: true,
  platform: 'node',
  format: 'esm',
  outfile: '.build/bench-figures.mjs',
});
write(execFileSync('node', [YOUNG_GENERATION_FLAG, '.build/bench-figures.mjs'], { encoding: 'utf8' }));

/** A proof after an edit: one word of the last block changes, everything else stays, as it does under a person's hands. */
function proofed({ document, assets }: Composition): void {
  const last = document.body.at(-1);
  if (last?.kind === 'keep' && last.blocks[0]?.kind === 'heading')
    last.blocks[0].runs = [{ kind: 'text', text: `Terms ${unique++}` }];
  else
    document.body.push({
      kind: 'paragraph',
      block: 'edit',
      align: 'start',
      runs: [{ kind: 'text', text: `Edit ${unique++}` }],
    });
  typesetter.proof(document, assets);
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

for (const lines of [12, 40, 140]) {
  const next = () => quote(lines, `number ${unique++}`);
  const composing = await median(() => composed(next()));
  const cold = await median(() => set(composed(next())));
  const edited = await median(() => proofed(composed(quote(lines, 'in proof'))));
  const printed = await median(() => printedByChromium(composed(next())));
  const made = await median(() => withPdfmake(composed(next()).document));
  write(`\n${lines} lines`);
  write(`  compose                         ${ms(composing)}`);
  write(`  compose + PDF, cold             ${ms(cold)}`);
  write(`  compose + proof, after an edit  ${ms(edited)}`);
  write(`  compose + Chromium print        ${ms(printed)}   cold PDF takes ${(cold / printed).toFixed(2)} of it`);
  write(`  compose + pdfmake               ${ms(made)}   cold PDF takes ${(cold / made).toFixed(2)} of it`);
}
const word = () => `number ${unique++}`;
const composing = await median(() => proposal(word()));
const cold = await median(() => set(proposal(word())));
const edited = await median(() => proofed(proposal('in proof')));
const chromiumTook = await median(() => printedByChromium(proposal(word())));
write('\nFull proposal, a photograph and a picture for each of its ten items');
write(`  compose                         ${ms(composing)}`);
write(`  compose + PDF, cold             ${ms(cold)}`);
write(`  compose + proof, after an edit  ${ms(edited)}`);
write(
  `  compose + Chromium print        ${ms(chromiumTook)}   cold PDF takes ${(cold / chromiumTook).toFixed(2)} of it`,
);
await browser.close();
rmSync(folder, { recursive: true });

write('\nA table of many lines, composed and set once each, in a process of its own');
for (const lines of [1_250, 2_500, 5_000, 10_000]) {
  const [took, most] = measured('tools/bench/long.ts', lines);
  write(
    `  ${String(lines).padStart(6)} lines  ${(took! / 1_000).toFixed(1)} s, ${(took! / lines).toFixed(2)} ms a line, ${most} MiB while it runs`,
  );
}

const [before, after] = measured('tools/bench/memory.ts', 1_000);
write(`\nMemory of a process that sets 1,000 quotes: ${before} MiB at the start, ${after} MiB at the end.`);

/** The two numbers that a measurement in a process of its own prints. */
function measured(script: string, size: number): number[] {
  const printed = execFileSync('npx', ['tsx', script, String(size)], { encoding: 'utf8' });
  return printed.trim().split(/\s+/).slice(-2).map(Number);
}
