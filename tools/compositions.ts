/**
 * Composes every shipped template for every demo deal, shows how the outcomes differ from those of the last commit, and
 * renews the digests that the tests hold them to. `npm run compositions`, or with the name of another commit.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { digestsOf, editions, compositionText, type Digests } from '../tests/compositions/every';

const KEPT = 'tests/compositions/kept.json';
const SHOWN = 5;
const LINES = 60;

const before = process.argv[2] ?? 'HEAD';
const now: Digests = Object.fromEntries(editions.map((each) => [keyOf(each), digestsOf(each.template, each.edition)]));
const kept = JSON.parse(execFileSync('git', ['show', `${before}:${KEPT}`], { encoding: 'utf8' })) as Digests;
const added = editions.filter((each) => !kept[keyOf(each)]);
const changed = editions.flatMap((each) => {
  const [was, is] = [kept[keyOf(each)], now[keyOf(each)]!];
  if (!was) return [];
  return Object.keys(is)
    .filter((deal) => is[deal] !== was[deal])
    .map((deal) => ({ ...each, deal }));
});
say(`${changed.length} compositions differ from those at ${before}; ${added.length} editions are new.`);
if (changed.length > 0) showDifferences();
writeFileSync(KEPT, `${JSON.stringify(now, null, 1)}\n`);

/** Composes the first of them in a copy of the older tree as well, and shows both. */
function showDifferences(): void {
  const folder = mkdtempSync(join(tmpdir(), 'lumbix-compositions-'));
  const tree = join(folder, 'tree');
  execFileSync('git', ['worktree', 'add', '--detach', '--quiet', tree, before]);
  try {
    symlinkSync(resolve('node_modules'), join(tree, 'node_modules'));
    const spread = changed.filter((_, at) => at % Math.ceil(changed.length / SHOWN) === 0);
    for (const { template, edition, deal } of spread) {
      const script = `import { compositionText } from './tests/compositions/every'; process.stdout.write(compositionText(${[template, edition, deal].map((each) => JSON.stringify(each)).join(', ')}));`;
      writeFileSync(join(tree, 'one.ts'), script);
      const [was, is] = [join(folder, 'was'), join(folder, 'is')];
      writeFileSync(was, execFileSync('npx', ['tsx', 'one.ts'], { cwd: tree, encoding: 'utf8', maxBuffer: 2 ** 28 }));
      writeFileSync(is, compositionText(template, edition, deal));
      say(`\n${template} in ${edition} for ${deal}:\n${differenceOf(was, is)}`);
    }
  } finally {
    execFileSync('git', ['worktree', 'remove', '--force', tree]);
    rmSync(folder, { recursive: true });
  }
}

function differenceOf(was: string, is: string): string {
  try {
    return execFileSync('diff', ['-U2', was, is], { encoding: 'utf8' });
  } catch (problem) {
    const lines = String((problem as { stdout: string }).stdout).split('\n');
    return [...lines.slice(2, LINES), ...(lines.length > LINES ? [`… ${lines.length - LINES} lines more`] : [])].join(
      '\n',
    );
  }
}

function keyOf({ template, edition }: { template: string; edition: string }): string {
  return `${template} ${edition}`;
}

function say(words: string): void {
  process.stdout.write(`${words}\n`);
}
