/**
 * Changes one operator, bound or rounding at a time in what computes and proves money, and runs the tests that hold it: a
 * change that no test notices is a survivor. `npm run mutation`, or with files as arguments for those alone. Works in copies
 * of the tree; takes about half an hour.
 */
import { spawn } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { mutantsOf, type Mutant } from './mutation/mutants';
import { EQUIVALENT } from './mutation/equivalent';

/** Tests that notice most changes come first; the others are asked only about what these let pass. */
const TESTS: readonly (readonly string[])[] = [
  ['core/money'],
  ['core/production/printed-sum.test.ts', 'core/calculations/invoicing.test.ts'],
  ['core/calculations/calculations.test.ts', 'core/formula/functions/functions.test.ts', 'core/production'],
];
/** What computes and proves money, with the functions that do where a file holds others too. */
const FILES: Readonly<Record<string, readonly string[] | undefined>> = {
  'core/money/decimal.ts': undefined,
  'core/money/integers.ts': undefined,
  'core/money/rounding.ts': undefined,
  'core/money/allocate.ts': undefined,
  'core/money/currency.ts': undefined,
  'core/money/format.ts': undefined,
  'core/money/number-symbols.ts': undefined,
  'core/sheet/printed-sum.ts': undefined,
  'core/formula/functions/register.ts': undefined,
  'core/template/blocks/line-table.ts': ['proveTotal', 'itemsFormula', 'groupSection', '#bundled', '#bundleRows', '#row', '#cell', '#carried', 'isWithin'],
  'core/production/compose.ts': ['#proveSums'],
  'core/production/compositor.ts': ['prove', 'totalOf', 'columnKey', 'keyOfColumn'],
}; // prettier-ignore
const WORKERS = 2;

interface Job {
  file: string;
  source: string;
  mutant: Mutant;
}

function copyOfTree(): string {
  const folder = mkdtempSync(join(tmpdir(), 'lumbix-mutation-'));
  for (const part of ['core', 'demo', 'tests', 'server', 'package.json', 'tsconfig.json', 'tsconfig.node.json', 'docs'])
    cpSync(part, join(folder, part), { recursive: true });
  writeFileSync(join(folder, 'vitest.config.ts'), readFileSync('vitest.config.ts'));
  for (const part of ['node_modules', '.nuxt', '.build'])
    if (existsSync(part)) symlinkSync(join(process.cwd(), part), join(folder, part));
  return folder;
}

/** Whether the tests notice: they fail, or do not end. */
async function isNoticed(folder: string): Promise<boolean> {
  for (const tests of TESTS) if (await fails(folder, tests)) return true;
  return false;
}

function fails(folder: string, tests: readonly string[]): Promise<boolean> {
  return new Promise((resolve) => {
    const run = spawn(
      'node',
      [
        'node_modules/vitest/vitest.mjs',
        'run',
        '--bail=1',
        '--reporter=dot',
        '--pool=threads',
        '--no-isolate',
        ...tests,
      ],
      {
        cwd: folder,
        env: { ...process.env, PROPERTY_RUNS: '100' },
        stdio: 'ignore',
        detached: true,
      },
    );
    const limit = setTimeout(() => process.kill(-run.pid!, 'SIGKILL'), 60_000);
    run.on('exit', (code) => {
      clearTimeout(limit);
      resolve(code !== 0);
    });
  });
}

const files = process.argv.length > 2 ? process.argv.slice(2) : Object.keys(FILES);
const lineOf = (source: string, { line }: Mutant) => source.split('\n')[line - 1]!.trim();

/** Whether a change is known to make no difference to any number; there is nothing to notice then. */
function isEquivalent({ file, source, mutant }: Job): boolean {
  const line = lineOf(source, mutant);
  return EQUIVALENT.some(
    (each) => each.file === file && line.includes(each.line) && [each.was ?? mutant.was].flat().includes(mutant.was),
  );
}

for (const { file, line } of EQUIVALENT) {
  if (!readFileSync(file, 'utf8').includes(line)) throw new Error(`No line of ${file} has “${line}” any more.`);
}
const all = files.flatMap((file): Job[] => {
  const source = readFileSync(file, 'utf8');
  return mutantsOf(source, FILES[file]).map((mutant) => ({ file, source, mutant }));
});
const jobs = all.filter((job) => !isEquivalent(job));
const equivalent = all.length - jobs.length;
const total = jobs.length;
const survivors: string[] = [];
let done = 0;

async function work(): Promise<void> {
  const folder = copyOfTree();
  await hold(folder);
  for (let job = jobs.shift(); job; job = jobs.shift()) {
    const { file, source, mutant } = job;
    const changed = source.slice(0, mutant.from) + mutant.is + source.slice(mutant.to);
    writeFileSync(join(folder, file), changed);
    const noticed = await isNoticed(folder);
    writeFileSync(join(folder, file), source);
    if (++done % 25 === 0) process.stdout.write(`${done} of ${total}\n`);
    if (noticed) continue;
    const words = `${file}:${mutant.line}  “${mutant.was}” as “${mutant.is}” in  ${lineOf(source, mutant)}`;
    process.stdout.write(`SURVIVED  ${words}\n`);
    survivors.push(words);
  }
  await hold(folder);
  rmSync(folder, { recursive: true });
}

/** Before and after: tests that fail by themselves would notice everything. */
async function hold(folder: string): Promise<void> {
  if (await isNoticed(folder)) throw new Error(`The tests fail in ${folder} without any change.`);
}

await Promise.all(Array.from({ length: WORKERS }, work));
process.stdout.write(
  `\n${total} changes, ${survivors.length} that no test noticed; ${equivalent} more make no difference.\n`,
);
process.exitCode = survivors.length > 0 ? 1 : 0;
