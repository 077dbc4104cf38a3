import { and, isNull, sql, type SQL } from 'drizzle-orm';
import { people } from '../db/schema';

/** Holds for people who can let others in now. */
export const isAdministrator = (): SQL | undefined =>
  and(isNull(people.withdrawnAt), sql`'administrator' = any(${people.roles})`);
