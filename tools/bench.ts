/**
 * Measures computing, composing and setting in one run, as ratios: this machine's own speed drops out. `npm run bench`. Each part is a
 * process of its own, bundled as it is served and with the press's room for young objects: a loader that keeps functions' names
 * would be measured with it.
 */
import { buildSync } from 'esbuild';
import { execFileSync } from 'node:child_process';
import { YOUNG_GENERATION_FLAG } from '../server/press/young-generation';

const OUT = '.build/bench';
const PARTS = ['figures-speed', 'setting', 'long', 'memory'] as const;
const write = (line: string) => process.stdout.write(`${line}\n`);

buildSync({
  entryPoints: PARTS.map((part) => `tools/bench/${part}.ts`),
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  outExtension: { '.js': '.mjs' },
  outdir: OUT,
});

const commandOf = (part: (typeof PARTS)[number], ...options: string[]) => [
  YOUNG_GENERATION_FLAG,
  `${OUT}/${part}.mjs`,
  ...options,
];

/** The two numbers that a part prints. */
function measured(part: 'long' | 'memory', size: number): [number, number] {
  const printed = execFileSync('node', commandOf(part, String(size)), { encoding: 'utf8' });
  return printed.trim().split(/\s+/).slice(-2).map(Number) as [number, number];
}

execFileSync('node', commandOf('figures-speed'), { stdio: 'inherit' });
execFileSync('node', commandOf('setting'), { stdio: 'inherit' });

write('\nA table of many lines, composed and set once each, in a process of its own');
for (const lines of [1_250, 2_500, 5_000, 10_000]) {
  const [took, most] = measured('long', lines);
  write(
    `  ${String(lines).padStart(6)} lines  ${(took / 1_000).toFixed(1)} s, ${(took / lines).toFixed(2)} ms a line, ${most} MiB while it runs`,
  );
}

const [before, after] = measured('memory', 1_000);
write(`\nMemory of a process that sets 1,000 quotes: ${before} MiB at the start, ${after} MiB at the end.`);
