import { and, count, desc, eq, gt, isNull } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Contract } from '../../core/contract/contract';
import type { BodyOf } from '../../core/contract/endpoint';
import { ROLES, type Role } from '../../core/contract/permissions';
import type { Connection, Database } from '../db/database';
import { invitations, people } from '../db/schema';
import { Problem } from '../problem';
import { addToTrail } from '../trail';
import { isAdministrator } from './administrators';
import type { Caller } from './caller';
import { hashed, refuseWeak } from './passwords';
import { randomToken, tokenHash } from './random-token';
import { endSessions, type Origin } from './sessions';
import { begin, subjectOf, type SignedIn } from './sign-in';

/** How long a link works. */
const LASTS = 3 * 24 * 3_600_000;

/** A one-time link as it is told, once: the token is in the part of the address that no server and no log ever sees. */
export interface OneTimeLink {
  link: string;
  expiresAt: Date;
}

/** Whom a link is for. */
interface For {
  name: string;
  email: string;
  roles: readonly Role[];
  /** Of a person who is there already. */
  personId?: string;
}

/** Makes a one-time link and takes back those that the same address has. */
export async function makeLink(
  connection: Connection,
  { name, email, roles, personId }: For,
  by: string,
): Promise<OneTimeLink> {
  const token = randomToken();
  const expiresAt = new Date(Date.now() + LASTS);
  await connection
    .update(invitations)
    .set({ withdrawnAt: new Date() })
    .where(and(eq(invitations.email, email), isNull(invitations.usedAt), isNull(invitations.withdrawnAt)));
  await connection.insert(invitations).values({
    id: uuidv7(),
    tokenHash: tokenHash(token),
    personId,
    name,
    email,
    roles: [...new Set(roles)],
    invitedBy: by,
    expiresAt,
  });
  return { link: `/join#${token}`, expiresAt };
}

/** The link of a first administrator, anew at each start as long as nobody can let people in; undefined once somebody can. */
export async function firstLink(connection: Connection): Promise<string | undefined> {
  const [administrators] = await connection.select({ count: count() }).from(people).where(isAdministrator());
  if (administrators!.count > 0) return undefined;
  // Who it is, they say themselves.
  const first = { name: '', email: '', roles: ROLES };
  return (await makeLink(connection, first, 'Lumbix')).link;
}

/** Invites a new person. @throws Problem where somebody has this address already */
export async function invite(
  database: Database,
  caller: Caller,
  { name, email, roles }: { name: string; email: string; roles: readonly Role[] },
): Promise<OneTimeLink> {
  const address = email.toLowerCase();
  const [known] = await database.select().from(people).where(eq(people.email, address));
  if (known)
    throw new Problem(
      409,
      'This person is here already',
      `${known.name} signs in with this address${known.withdrawnAt ? ', and their access was taken away. Give it back instead' : '. Give them other roles, or a link for a new password'}.`,
    );
  return database.transaction(async (transaction) => {
    const made = await makeLink(transaction, { name, email: address, roles }, caller.name);
    const subject = { kind: 'person' as const, id: '', name };
    await addToTrail(transaction, caller, 'invited', subject, `Invited ${name} (${address}) as ${roles.join(', ')}.`);
    return made;
  });
}

const isOpen = () =>
  and(isNull(invitations.usedAt), isNull(invitations.withdrawnAt), gt(invitations.expiresAt, new Date()));

/** Links that were not used yet, the newest first. */
export async function openInvitations(connection: Connection) {
  const rows = await connection.select().from(invitations).where(isOpen()).orderBy(desc(invitations.createdAt));
  return rows.map(({ id, name, email, roles, invitedBy, expiresAt, personId }) => ({
    id,
    name,
    email,
    roles,
    invitedBy,
    expiresAt,
    isNew: personId === null,
  }));
}

/** Withdraws a link. @throws Problem */
export async function withdrawInvitation(database: Database, caller: Caller, id: string): Promise<void> {
  await database.transaction(async (transaction) => {
    const [found] = await transaction
      .update(invitations)
      .set({ withdrawnAt: new Date() })
      .where(and(eq(invitations.id, id), isOpen()))
      .returning();
    if (!found) throw new Problem(404, 'No such link', 'It was used, withdrawn or has expired meanwhile.');
    const subject = { kind: 'person' as const, id: found.personId ?? '', name: found.name };
    await addToTrail(transaction, caller, 'link withdrawn', subject, `Withdrew the link for ${found.name}.`);
  });
}

/** Whom a link is for. @throws Problem */
export async function invitationOf(connection: Connection, token: string) {
  const [found] = await connection
    .select()
    .from(invitations)
    .where(and(eq(invitations.tokenHash, tokenHash(token)), isOpen()));
  if (!found) throw gone();
  const { name, email, roles, personId } = found;
  return { name, email, roles, isNew: personId === null };
}

/** Uses a link: its person has the password from now on, and is signed in. @throws Problem */
export async function acceptInvitation(
  database: Database,
  { token, password, ...chosen }: BodyOf<Contract['POST /invitation/accept']>,
  origin: Origin,
): Promise<SignedIn> {
  const found = await invitationOf(database, token);
  const name = found.name || chosen.name;
  const email = found.email || chosen.email?.toLowerCase();
  if (!name || !email)
    throw new Problem(422, 'Your name and address are missing', 'Say what you are called and what you sign in with.');
  refuseWeak(password, [name, email]);
  const passwordHash = await hashed(password);
  return database.transaction(async (transaction) => {
    // Of two who use it at once, one comes too late.
    const [used] = await transaction
      .update(invitations)
      .set({ usedAt: new Date() })
      .where(and(eq(invitations.tokenHash, tokenHash(token)), isOpen()))
      .returning();
    if (!used) throw gone();
    const person = used.personId
      ? await withNewPassword(transaction, used.personId, passwordHash)
      : await added(transaction, { ...used, name, email }, passwordHash);
    const sentence = used.personId ? 'Chose a new password by a link.' : `Joined, invited by ${used.invitedBy}.`;
    await addToTrail(
      transaction,
      { ...person, via: 'page' },
      used.personId ? 'password changed' : 'joined',
      subjectOf(person),
      sentence,
    );
    return begin(transaction, person, origin, 'Signed in.');
  });
}

async function added(
  connection: Connection,
  { name, email, roles }: typeof invitations.$inferSelect,
  passwordHash: string,
) {
  const [person] = await connection
    .insert(people)
    .values({ id: uuidv7(), name, email, roles, passwordHash })
    .onConflictDoNothing()
    .returning();
  if (!person)
    throw new Problem(409, 'This person is here already', 'Somebody joined with this address meanwhile. Sign in.');
  return person;
}

/** Whoever was signed in as this person is so no longer, and the codes of a lost app are asked for no more. */
async function withNewPassword(connection: Connection, id: string, passwordHash: string) {
  await endSessions(connection, id);
  const [person] = await connection
    .update(people)
    .set({ passwordHash, codeSecret: null, codesSince: null, lastCodeStep: null, recoveryCodes: [] })
    .where(and(eq(people.id, id), isNull(people.withdrawnAt)))
    .returning();
  if (!person) throw gone();
  return person;
}

const gone = () =>
  new Problem(
    410,
    'This link does not work any more',
    'It was used, withdrawn, or is older than three days. Ask an administrator for a new one.',
  );
