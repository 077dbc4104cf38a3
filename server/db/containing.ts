import { and, desc, like, sql, type SQL } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import { searchWords } from '../../core/words/search';

/** Matches every text that a word is in. */
export const patternOf = (word: string): string => `%${word.replace(/[\\%_]/g, (character) => `\\${character}`)}%`;

/** Holds where a column of searchable text has all words that were typed, in any order; undefined where none was. */
export function containing(typed: string, column: PgColumn): SQL | undefined {
  return and(...searchWords(typed).map((word) => like(column, patternOf(word))));
}

/** Sorts by a column, what is blank at the smaller end, and by another one where it is the same. */
export function sorted(column: PgColumn, descending: boolean, then: PgColumn): SQL[] {
  if (column.notNull) return descending ? [desc(column), desc(then)] : [sql`${column}`, sql`${then}`];
  return descending
    ? [sql`${column} desc nulls last`, sql`${then} desc nulls last`]
    : [sql`${column} asc nulls first`, sql`${then} asc nulls first`];
}
