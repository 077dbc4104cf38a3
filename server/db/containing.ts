import { desc, ilike, sql, type SQL, type SQLWrapper } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import { wordsOf } from './schema';

/** Holds where the columns, one after the other, have the words as they were typed, without regard to case. */
export function containing(words: string, [first, ...others]: readonly [SQLWrapper, ...SQLWrapper[]]): SQL {
  const pattern = `%${words.replace(/[\\%_]/g, (character) => `\\${character}`)}%`;
  return ilike(wordsOf(first, ...others), pattern);
}

/** Sorts by a column, what is blank at the smaller end, and by another one where it is the same. */
export function sorted(column: PgColumn, descending: boolean, then: PgColumn): SQL[] {
  if (column.notNull) return descending ? [desc(column), desc(then)] : [sql`${column}`, sql`${then}`];
  return descending
    ? [sql`${column} desc nulls last`, sql`${then} desc nulls last`]
    : [sql`${column} asc nulls first`, sql`${then} asc nulls first`];
}
