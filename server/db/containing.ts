import { ilike, or, type SQL } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';

/** Holds where any of the columns has the words as they were typed, without regard to case. */
export function containing(words: string, columns: PgColumn[]): SQL | undefined {
  const pattern = `%${words.replace(/[\\%_]/g, (character) => `\\${character}`)}%`;
  return or(...columns.map((column) => ilike(column, pattern)));
}
