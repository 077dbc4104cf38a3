import type { RecordLayout } from './layout';
import type { FieldSchema, RecordType } from './schema';

/** A field in the order that a record is shown in, with the group it stands in and whether it is a column of lists. */
export interface LayoutRow {
  field: FieldSchema;
  group: string;
  isColumn: boolean;
}

/** A layout as rows to be ordered: the fields of groups and columns first, then what is not shown. */
export function layoutRows({ fields }: RecordType, { groups, columns }: RecordLayout): LayoutRow[] {
  const groupOf = new Map(groups.flatMap(({ label, fields: names }) => names.map((name) => [name, label])));
  const order = new Set([...groupOf.keys(), ...columns, ...Object.keys(fields)]);
  return [...order].flatMap((name) => {
    const field = fields[name];
    if (!field || field.target || field.identifies) return [];
    return [{ field, group: groupOf.get(name) ?? '', isColumn: columns.includes(name) }];
  });
}

/** What ordered rows mean: groups in the order of their first fields, and columns in theirs. */
export function layoutOfRows(rows: readonly LayoutRow[]): Pick<RecordLayout, 'groups' | 'columns'> {
  const labels = new Set(rows.flatMap(({ group }) => group.trim() || []));
  return {
    groups: [...labels].map((label) => ({
      label,
      fields: rows.filter(({ group }) => group.trim() === label).map(({ field }) => field.name),
    })),
    columns: rows.filter(({ isColumn }) => isColumn).map(({ field }) => field.name),
  };
}

/** The rows with one of them moved by some places, as far as there are any. */
export function movedRow(rows: readonly LayoutRow[], at: number, by: number): LayoutRow[] {
  const next = [...rows];
  const [row] = next.splice(at, 1);
  if (row) next.splice(Math.max(0, Math.min(next.length, at + by)), 0, row);
  return next;
}
