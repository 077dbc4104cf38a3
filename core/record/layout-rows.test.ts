import { describe, expect, it } from 'vitest';
import { layoutOfRows, layoutRows, movedRow } from './layout-rows';
import { layoutOf } from './layout';
import { demoSchema } from '../../tests/demo-snapshot';

const deal = demoSchema.types.Deal!;
const layout = layoutOf(demoSchema, 'Deal');
const rows = layoutRows(deal, layout);
const nameAt = (at: number) => rows[at]!.field.name;

describe('the rows of a layout', () => {
  it('are all plain fields, those that are shown first and in their order', () => {
    expect(rows.slice(0, 3).map(({ field, group }) => [field.name, group])).toEqual([
      ['name', 'Deal'],
      ['stage', 'Deal'],
      ['owner', 'Deal'],
    ]);
    expect(rows.map(({ field }) => field.name)).not.toContain('id');
    expect(rows.map(({ field }) => field.name)).not.toContain('account');
    expect(rows.at(-1)!.group).toBe('');
    expect(new Set(rows.map(({ field }) => field.name)).size).toBe(rows.length);
  });

  it.each(Object.keys(demoSchema.types))('of the type %s mean the layout that they came from', (name) => {
    const { groups, columns } = layoutOf(demoSchema, name);
    expect(layoutOfRows(layoutRows(demoSchema.types[name]!, { ...layout, groups, columns }))).toEqual({
      groups,
      columns,
    });
  });

  it('put a field into another group, a new one too, without blanks around its name', () => {
    const changed = rows.map((row) => (row.field.name === 'stage' ? { ...row, group: ' Progress ' } : row));
    const { groups } = layoutOfRows(changed);
    expect(groups.map(({ label }) => label)).toEqual(['Deal', 'Progress', 'Site']);
    expect(groups[1]!.fields).toEqual(['stage']);
  });

  it('move by places, as far as there are any', () => {
    const names = (moved: typeof rows) => moved.map(({ field }) => field.name);
    expect(names(movedRow(rows, 0, 1)).slice(0, 2)).toEqual([nameAt(1), nameAt(0)]);
    expect(names(movedRow(rows, 0, -1))).toEqual(names(rows));
    expect(names(movedRow(rows, rows.length - 1, 5))).toEqual(names(rows));
    expect(names(movedRow(rows, 2, -9))[0]).toBe(nameAt(2));
  });
});
