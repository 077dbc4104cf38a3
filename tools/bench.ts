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
import { Typesetter } from '../render/typst/typesetter';
import { medianOf, ms } from './bench/median';
import { composed, quote } from './bench/quotes';
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

// Bundled as it is served: a loader that keeps functions' names would be measured with it.
buildSync({
  entryPoints: ['tools/bench/figures-main.ts'],
  bundle: true,
  platform: 'node',
  format: 'esm',
  outfile: '.build/bench-figures.mjs',
});
write(execFileSync('node', ['.build/bench-figures.mjs'], { encoding: 'utf8' }));

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
