import { lt, or } from 'drizzle-orm';
import type { Connection } from './db/database';
import { guesses, sessions } from './db/schema';
import { dropClosedEditors } from './drafts';
import { dropOldProductions } from './productions/production';

const DAY = 24 * 3_600_000;

/**
 * Drops what counts no more: counts of guesses that are over, sessions of more than a year ago, which tell when somebody was last
 * here, proofs that nothing was filed from, and windows that drafts are worked on in no more. Done at each start, and every hour.
 */
export async function tidyUp(connection: Connection, now = Date.now()): Promise<void> {
  await connection.delete(guesses).where(lt(guesses.expire, now));
  const before = new Date(now - 366 * DAY);
  await connection.delete(sessions).where(or(lt(sessions.endedAt, before), lt(sessions.createdAt, before)));
  await dropOldProductions(connection, now);
  await dropClosedEditors(connection, now);
}
