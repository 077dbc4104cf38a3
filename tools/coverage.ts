/** Says how many branches of the parts that everything rests on the tests take, and fails below the bar. Run by `./test`. */
import { readFileSync } from 'node:fs';
import { relative } from 'node:path';

const BAR = 85;
const FOLDERS = ['core/template', 'core/production', 'server/productions', 'server/records'];

interface FileSummary {
  branches: { total: number; covered: number };
}
const files = JSON.parse(readFileSync('test-results/coverage/coverage-summary.json', 'utf8')) as Record<
  string,
  FileSummary
>;

for (const folder of FOLDERS) {
  let [total, covered] = [0, 0];
  for (const [file, { branches }] of Object.entries(files)) {
    if (!relative(process.cwd(), file).startsWith(`${folder}/`)) continue;
    total += branches.total;
    covered += branches.covered;
  }
  const percent = (100 * covered) / total;
  process.stdout.write(`Branches of ${folder}: ${percent.toFixed(1)} % of ${total}, at least ${BAR} % wanted.\n`);
  // Written so that no branches at all fail too.
  if (!(percent >= BAR)) process.exitCode = 1;
}
