import { and, desc, gte, like, lt, sql, type SQL } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import { searchWords } from '../../core/words/search';
import { config } from '../config';

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

/** Holds where a moment is on one of some days, the first and the last included, in the company's time zone. */
export const within = (column: PgColumn, { from, until }: { from?: string; until?: string }): (SQL | undefined)[] => [
  from ? gte(column, startOf(from)) : undefined,
  until ? lt(column, sql`${startOf(until)} + interval '1 day'`) : undefined,
];

const startOf = (day: string): SQL<Date> => sql<Date>`(${day}::date::timestamp at time zone ${config.timeZone})`;
