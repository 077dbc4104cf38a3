/**
 * Builds what runs beside the web application: the processes (one bundled file each, packages left
 * outside) and the press folder with the typesetting program and its fonts. `npm run build` builds the web application too.
 */
import { build } from 'esbuild';
import { cpSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fontWidths } from './font-widths';

const OUT = '.build';

/** Font cuts that documents are set in: package, cuts, and the licence that goes with them. */
const FONTS: readonly [font: string, file: string, cuts: readonly string[]][] = [
  ['source-sans-3', 'SourceSans3', ['400Regular', '400Regular_Italic', '600SemiBold', '600SemiBold_Italic', '700Bold']],
  ['source-serif-4', 'SourceSerif4', ['400Regular', '400Regular_Italic', '600SemiBold', '600SemiBold_Italic']],
  ['noto-sans', 'NotoSans', ['400Regular', '400Regular_Italic', '600SemiBold']],
  ['ibm-plex-sans-arabic', 'IBMPlexSansArabic', ['400Regular', '600SemiBold']],
  ['noto-emoji', 'NotoEmoji', ['400Regular']],
];

const PROCESSES = {
  'press-worker': 'server/press/worker.ts',
  history: 'server/demo/history-main.ts',
  worker: 'server/jobs/main.ts',
  migrate: 'server/db/migrate-main.ts',
  crm: 'standins/crm/main.ts',
  storage: 'standins/storage/main.ts',
};

function copyFonts(): void {
  for (const [font, file, cuts] of FONTS) {
    const folder = join('node_modules/@expo-google-fonts', font);
    for (const cut of cuts)
      cpSync(join(folder, cut, `${file}_${cut}.ttf`), join(OUT, 'press/fonts', `${file}_${cut}.ttf`));
    cpSync(join(folder, 'LICENSE_FONT'), join(OUT, 'press/fonts', `${file}.LICENSE`));
  }
}

rmSync(OUT, { recursive: true, force: true });
mkdirSync(join(OUT, 'press/fonts'), { recursive: true });
copyFonts();
writeFileSync(join(OUT, 'press/widths.json'), JSON.stringify(fontWidths(join(OUT, 'press/fonts'))));
cpSync('render/typst/document.typ', join(OUT, 'press/document.typ'));
cpSync('server/db/migrations', join(OUT, 'migrations'), { recursive: true });
await build({
  entryPoints: PROCESSES,
  outdir: OUT,
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  packages: 'external',
  sourcemap: true,
  logLevel: 'warning',
});
