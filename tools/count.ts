/** Prints the lines of code and of tests by folder, without blank lines: `npm run count`. */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';

const CODE = /\.(ts|vue|mjs|typ|css|py|grammar|sh)$/;
const files = execFileSync('git', ['ls-files'], { encoding: 'utf8' })
  .split('\n')
  .filter((file) => CODE.test(file) && !file.includes('.parser'));
const isTest = (file: string) => /\.test\.ts$|^(tests|e2e)\//.test(file);

/** `core/money`, `app/pages`; the folder alone where files stand in it. */
function folderOf(file: string): string {
  const [top = '', inner = ''] = file.split('/');
  return inner.includes('.') || inner === '' ? top : `${top}/${inner}`;
}

const counts = new Map<string, { code: number; tests: number }>();
for (const file of files) {
  const lines = readFileSync(file, 'utf8')
    .split('\n')
    .filter((line) => line.trim() !== '').length;
  const folder = folderOf(file);
  const count = counts.get(folder) ?? { code: 0, tests: 0 };
  count[isTest(file) ? 'tests' : 'code'] += lines;
  counts.set(folder, count);
}

const sum = (part: 'code' | 'tests') => [...counts.values()].reduce((total, each) => total + each[part], 0);
const row = (name: string, code: number, tests: number) =>
  `${name.padEnd(24)}${String(code).padStart(8)}${String(tests).padStart(8)}\n`;
process.stdout.write(`${'folder'.padEnd(24)}${'code'.padStart(8)}${'tests'.padStart(8)}\n`);
for (const [folder, { code, tests }] of [...counts].sort()) process.stdout.write(row(folder, code, tests));
process.stdout.write(row('all', sum('code'), sum('tests')));
process.stdout.write(`Tests are ${Math.round((100 * sum('tests')) / (sum('code') + sum('tests')))} % of all lines.\n`);
