import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { ENTITY_TYPES, STAGES, valueOf } from '../standins/crm/model';

/**
 * What the demo's CRM calls its types, sets, stages and fields, where no other word of Lumbix is written so. Lumbix itself takes all of
 * them from the source's schema and from settings.
 */
const NAMES = new Set([
  ...ENTITY_TYPES.flatMap(({ name, set }) => [name, set]),
  ...STAGES,
  ...ENTITY_TYPES.flatMap(({ properties, navigations }) => [
    ...properties.map(({ name }) => name).filter(isMadeUp),
    ...properties.flatMap(({ allowed = [] }) =>
      allowed.map(valueOf).filter((value) => value.includes(' ') || value.includes('&')),
    ),
    ...navigations.map(({ key }) => key).filter(isMadeUp),
  ]),
]);
function isMadeUp(name: string): boolean {
  return name.includes('_');
}

/** Formulas to be taken and changed, and the made-up record that the reference's examples are computed over. */
const EXAMPLES = [/^core\/calculations\//, /^core\/formula\/functions\//, /^core\/sheet\/(sample|reference)\.ts$/];
/** Words of the screens and of EN 16931 that the demo happens to use too. */
const WORDS: Readonly<Record<string, readonly string[]>> = {
  'app/pages/setup/records.vue': ['Account'],
  'app/pages/register/index.vue': ['Account'],
  'app/pages/records/[type]/index.vue': ['Quoted'],
  'core/words/phrases.ts': ['reverse charge', 'outside scope'],
  'core/template/blocks/line-table.ts': ['rolled up'],
};

function namesIn(source: string): string[] {
  const code = source.replace(/\/\*[\s\S]*?\*\/|<!--[\s\S]*?-->|(?<!:)\/\/.*$/gm, '');
  const texts = [...code.matchAll(/(['"`])((?:(?!\1)[^\\\n]|\\.)*)\1/g)].map(([, , text]) => text!);
  const identifiers = [...code.matchAll(/\b[a-z]+(?:_[a-z]+)+\b/g)].map(([name]) => name);
  return [...new Set([...texts, ...identifiers].filter((each) => NAMES.has(each)))];
}

describe('a name of the demo', () => {
  const files = execFileSync('git', ['ls-files', '-co', '--exclude-standard', 'core', 'server', 'app'], {
    encoding: 'utf8',
  })
    .split('\n')
    .filter((file) => /\.(ts|vue|typ)$/.test(file) && !/\.test\.ts$/.test(file))
    .filter((file) => !EXAMPLES.some((of) => of.test(file)));

  it('is found where it stands', () => {
    expect(files.length).toBeGreaterThan(300);
    expect(namesIn(`const type = 'Deal'; // 'Lost'\nfields.closes_on === "Site visit"`)).toEqual([
      'Deal',
      'Site visit',
      'closes_on',
    ]);
  });

  it.each(files)('is not in %s', (file) => {
    const found = namesIn(readFileSync(file, 'utf8')).filter((name) => !WORDS[file]?.includes(name));
    expect(found).toEqual([]);
  });
});
