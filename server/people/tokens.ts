import { and, desc, eq, gt, isNull, type SQL } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Role } from '../../core/contract/permissions';
import type { Connection, Database } from '../db/database';
import { apiTokens, people } from '../db/schema';
import { Problem } from '../problem';
import { addToTrail } from '../trail';
import { forbidden } from './access';
import type { Caller } from './caller';
import { randomToken, tokenHash } from './random-token';

const DAY = 24 * 3_600_000;
/** What tokens begin with, so that one that was left lying about is known for what it is. */
const PREFIX = 'lumbix_';

/** The person of a token, with the roles that it has and its person still has; undefined for one that does not hold. */
export async function tokenBearer(connection: Connection, token: string) {
  if (!token.startsWith(PREFIX)) return undefined;
  const [found] = await connection
    .select()
    .from(apiTokens)
    .innerJoin(people, eq(people.id, apiTokens.personId))
    .where(and(eq(apiTokens.tokenHash, tokenHash(token)), holds(), isNull(people.withdrawnAt)));
  if (!found) return undefined;
  const { id, roles } = found.api_tokens;
  await connection.update(apiTokens).set({ lastUsedAt: new Date() }).where(eq(apiTokens.id, id));
  return { person: found.people, roles: roles.filter((role) => found.people.roles.includes(role)) };
}

/** Makes a token of a person's own roles. The token is told here and never again. @throws Problem */
export async function makeToken(
  database: Database,
  caller: Caller,
  { name, roles, days }: { name: string; roles: readonly Role[]; days: number },
) {
  const missing = roles.filter((role) => !caller.roles.includes(role));
  if (missing.length > 0)
    throw forbidden(`A token has at most your own roles, and you have not ${missing.join(', ')}.`);
  const token = `${PREFIX}${randomToken()}`;
  const id = uuidv7();
  const expiresAt = new Date(Date.now() + days * DAY);
  await database.transaction(async (transaction) => {
    await transaction
      .insert(apiTokens)
      .values({ id, tokenHash: tokenHash(token), personId: caller.id, name, roles: [...new Set(roles)], expiresAt });
    await addToTrail(
      transaction,
      caller,
      'token made',
      { kind: 'token', id, name },
      `Made the token “${name}” for ${roles.join(', ')}.`,
    );
  });
  return { token, id, expiresAt };
}

/** Tokens that hold, of a person or of everybody. */
export async function openTokens(connection: Connection, personId?: string) {
  return connection
    .select({
      id: apiTokens.id,
      name: apiTokens.name,
      person: people.name,
      roles: apiTokens.roles,
      createdAt: apiTokens.createdAt,
      expiresAt: apiTokens.expiresAt,
      lastUsedAt: apiTokens.lastUsedAt,
    })
    .from(apiTokens)
    .innerJoin(people, eq(people.id, apiTokens.personId))
    .where(and(holds(), personId ? eq(apiTokens.personId, personId) : undefined))
    .orderBy(desc(apiTokens.createdAt));
}

/** Withdraws a token, of a person or whosever it is. @throws Problem */
export async function withdrawToken(database: Database, caller: Caller, id: string, personId?: string): Promise<void> {
  await database.transaction(async (transaction) => {
    const [token] = await transaction
      .update(apiTokens)
      .set({ withdrawnAt: new Date() })
      .where(and(eq(apiTokens.id, id), holds(), personId ? eq(apiTokens.personId, personId) : undefined))
      .returning({ name: apiTokens.name });
    if (!token) throw new Problem(404, 'No such token', 'It may have been withdrawn already, or it has expired.');
    await addToTrail(
      transaction,
      caller,
      'token withdrawn',
      { kind: 'token', id, name: token.name },
      `Withdrew the token “${token.name}”.`,
    );
  });
}

const holds = (): SQL | undefined => and(isNull(apiTokens.withdrawnAt), gt(apiTokens.expiresAt, new Date()));
