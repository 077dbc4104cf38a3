import { and, desc, eq, gt, isNull, ne, type SQL } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Connection } from '../db/database';
import { people, sessions } from '../db/schema';
import { seal, unseal } from '../secrets/seal';
import { randomToken, tokenHash } from './random-token';

const HOUR = 3_600_000;
/** A session ends after this long, and after this long without a request (ASVS 7.3). */
const LONGEST = 12 * HOUR;
const LONGEST_IDLE = 4 * HOUR;
/** Seconds for which the browser keeps the cookie. */
export const COOKIE_SECONDS = LONGEST / 1_000;
/** How exactly it is kept when somebody was seen. */
const SEEN_EVERY = 60_000;

/** Where a request comes from, as it says itself. */
export interface Origin {
  agent: string;
  address: string;
}

/** Begins a session. Gives what its cookie holds: sealed, so that a forged one is told without asking the database. */
export async function beginSession(
  connection: Connection,
  personId: string,
  { agent, address }: Origin,
): Promise<string> {
  const token = randomToken();
  await connection
    .insert(sessions)
    .values({ id: uuidv7(), tokenHash: tokenHash(token), personId, agent: agent.slice(0, 300), address });
  return seal(token, 'session');
}

/** The session of a cookie with its person; undefined where it is forged, over, or its person’s access was taken away. */
export async function sessionOf(connection: Connection, cookie: string) {
  const token = unseal(cookie, 'session');
  if (token === undefined) return undefined;
  const now = Date.now();
  const [found] = await connection
    .select()
    .from(sessions)
    .innerJoin(people, eq(people.id, sessions.personId))
    .where(and(eq(sessions.tokenHash, tokenHash(token)), isOpen(now), isNull(people.withdrawnAt)));
  if (!found) return undefined;
  if (found.sessions.seenAt.getTime() < now - SEEN_EVERY)
    await connection
      .update(sessions)
      .set({ seenAt: new Date(now) })
      .where(eq(sessions.id, found.sessions.id));
  return { session: found.sessions.id, person: found.people };
}

/** Holds for sessions that are not over. */
export const isOpen = (now = Date.now()): SQL | undefined =>
  and(
    isNull(sessions.endedAt),
    gt(sessions.createdAt, new Date(now - LONGEST)),
    gt(sessions.seenAt, new Date(now - LONGEST_IDLE)),
  );
const isOpenOf = (personId: string) => and(eq(sessions.personId, personId), isOpen());

/** Where a person is signed in, the newest first. */
export async function openSessions(connection: Connection, personId: string, current?: string) {
  const rows = await connection.select().from(sessions).where(isOpenOf(personId)).orderBy(desc(sessions.seenAt));
  return rows.map(({ id, agent, address, createdAt, seenAt }) => ({
    id,
    agent,
    address,
    createdAt,
    seenAt,
    isThis: id === current,
  }));
}

/** Ends a person's sessions, but for one to be kept. Gives how many. */
export async function endSessions(connection: Connection, personId: string, kept?: string): Promise<number> {
  const ended = await connection
    .update(sessions)
    .set({ endedAt: new Date() })
    .where(and(isOpenOf(personId), kept ? ne(sessions.id, kept) : undefined))
    .returning({ id: sessions.id });
  return ended.length;
}

/** Ends one session of a person. Gives whether there was one. */
export async function endSession(connection: Connection, personId: string, id: string): Promise<boolean> {
  const ended = await connection
    .update(sessions)
    .set({ endedAt: new Date() })
    .where(and(eq(sessions.personId, personId), eq(sessions.id, id), isNull(sessions.endedAt)))
    .returning({ id: sessions.id });
  return ended.length > 0;
}
