import fc from 'fast-check';
import { expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import { demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { propertyRuns } from '../../tests/property-runs';
import { compose } from '../production/compose';
import { readTemplateFile } from './file/read';
import { faultsOf } from './gate';

/** What may stand in place of any value of a template. */
const anything = fc.oneof(
  fc.constantFrom(
    null,
    true,
    0,
    -1,
    1.5,
    1e308,
    '',
    ' ',
    'x',
    'constructor',
    'toString',
    'lines',
    'item',
    'then',
    'rest',
    [],
    {},
    [[]],
    { type: 'text', text: 'x' },
  ),
  fc.constantFrom(
    'SUM(lines.net)',
    'lines',
    'deal',
    'deal.account',
    'total',
    '1 / 0',
    '1 +',
    'total(',
    'item.net',
    'this',
    '"a" & 1',
    'lines[net > 0]',
    '=[total',
    '=[total] =[',
    'GROUP(lines, section)',
    'FIRST(lines).x',
    '10^400',
    'REGISTERED()',
    'PART(net)',
  ),
  fc.string(),
  fc.integer(),
);

type Change = { at: number; how: 'replace' | 'drop' | 'twice' | 'move'; value: unknown; from: number };
const change: fc.Arbitrary<Change> = fc.record({
  at: fc.nat(),
  how: fc.constantFrom('replace', 'replace', 'replace', 'drop', 'twice', 'move'),
  value: anything,
  from: fc.nat(),
});

/** Every place in some JSON where a value stands: what holds it, and under which key. */
function places(json: unknown): { holder: Record<string, unknown>; key: string }[] {
  if (typeof json !== 'object' || json === null) return [];
  const holder = json as Record<string, unknown>;
  return Object.keys(holder).flatMap((key) => [{ holder, key }, ...places(holder[key])]);
}

function changed(template: unknown, changes: readonly Change[]): unknown {
  const copy: unknown = JSON.parse(JSON.stringify(template));
  for (const { at, how, value, from } of changes) {
    const all = places(copy);
    const { holder, key } = all[at % all.length]!;
    if (how === 'drop' && Array.isArray(holder)) holder.splice(Number(key), 1);
    else if (how === 'drop') delete holder[key];
    else if (how === 'twice' && Array.isArray(holder)) holder.push(JSON.parse(JSON.stringify(holder[Number(key)])));
    else if (how === 'move')
      holder[key] = JSON.parse(JSON.stringify(all[from % all.length]!.holder[all[from % all.length]!.key] ?? null));
    else holder[key] = value;
  }
  return copy;
}

const template = fc.constantFrom(...shipped.templates.map(({ id }) => id));
const deal = fc.constantFrom('D-1187', 'D-1189', 'D-1200', 'D-1202', 'D-1213');

it('the gate never throws, and what passes it composes without an exception', () => {
  let passed = 0;
  const runs = propertyRuns(500);
  fc.assert(
    fc.property(template, fc.array(change, { minLength: 1, maxLength: 3 }), deal, (id, changes, record) => {
      const file = changed(
        shipped.templates.find((each) => each.id === id),
        changes,
      );
      const read = readTemplateFile(JSON.stringify(file));
      if ('faults' in read) {
        expect(read.faults.length).toBeGreaterThan(0);
        return;
      }
      const { count, faults } = faultsOf(read.template, shipped, demoSchema);
      for (const { sentence } of faults) expect(sentence).toMatch(/\S+.*[.?!”]$/s);
      if (count > 0) return;
      passed++;
      for (const { id: edition } of read.template.editions) {
        expect(() =>
          compose(read.template, demoSnapshot(record), {
            schema: demoSchema,
            pins: shipped,
            issueDate: '2026-11-23',
            edition,
          }),
        ).not.toThrow();
      }
    }),
    { numRuns: runs },
  );
  // Some changes are harmless, so that both ways are tried.
  expect(passed).toBeGreaterThan(runs / 100);
}, 600_000);
