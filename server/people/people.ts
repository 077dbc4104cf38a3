import { and, asc, count, eq, max, ne, sql } from 'drizzle-orm';
import type { Role } from '../../core/contract/permissions';
import type { Connection, Database } from '../db/database';
import { people, sessions } from '../db/schema';
import { Problem } from '../problem';
import { addToTrail } from '../trail';
import { writeRules, readRules, type AccessRules } from './access';
import { isAdministrator } from './administrators';
import type { Caller } from './caller';
import { makeLink, openInvitations, type OneTimeLink } from './invitations';
import { endSession, endSessions, isOpen } from './sessions';
import { subjectOf, type Person } from './sign-in';
import { openTokens } from './tokens';

/** Everybody with their sessions, the open links, and the tokens. */
export async function listPeople(connection: Connection) {
  const [everybody, invitations, tokens] = await Promise.all([
    connection
      .select({
        id: people.id,
        name: people.name,
        email: people.email,
        roles: people.roles,
        codes: sql<boolean>`${people.codesSince} is not null`,
        isDemo: people.isDemo,
        sessions: sql<number>`count(${sessions.id}) filter (where ${isOpen()})`.mapWith(Number),
        seenAt: max(sessions.seenAt),
        withdrawnAt: people.withdrawnAt,
      })
      .from(people)
      .leftJoin(sessions, eq(sessions.personId, people.id))
      .groupBy(people.id)
      .orderBy(asc(people.name)),
    openInvitations(connection),
    openTokens(connection),
  ]);
  return { people: everybody, invitations, tokens };
}

/** Gives a person other roles and ends their sessions. @throws Problem */
export async function changeRoles(
  database: Database,
  caller: Caller,
  id: string,
  roles: readonly Role[],
): Promise<void> {
  await database.transaction(async (transaction) => {
    const person = await lockedPerson(transaction, id);
    if (!roles.includes('administrator')) await refuseLast(transaction, person);
    await transaction
      .update(people)
      .set({ roles: [...new Set(roles)] })
      .where(eq(people.id, id));
    await endSessions(transaction, id);
    await addToTrail(
      transaction,
      caller,
      'roles changed',
      subjectOf(person),
      `${person.name} is ${roles.join(', ')} now, and was ${person.roles.join(', ')}.`,
    );
  });
}

/** Takes a person's access away or gives it back. @throws Problem */
export async function setWithdrawn(database: Database, caller: Caller, id: string, withdrawn: boolean): Promise<void> {
  await database.transaction(async (transaction) => {
    const person = await lockedPerson(transaction, id);
    if ((person.withdrawnAt !== null) === withdrawn) return;
    if (withdrawn) await refuseLast(transaction, person);
    await transaction
      .update(people)
      .set({ withdrawnAt: withdrawn ? new Date() : null })
      .where(eq(people.id, id));
    await endSessions(transaction, id);
    const sentence = withdrawn ? `Took ${person.name}’s access away.` : `Gave ${person.name} access again.`;
    await addToTrail(transaction, caller, withdrawn ? 'access withdrawn' : 'access given', subjectOf(person), sentence);
  });
}

/** Signs a person out everywhere. @throws Problem */
export async function signOutEverywhere(database: Database, caller: Caller, id: string): Promise<number> {
  return database.transaction(async (transaction) => {
    const person = await lockedPerson(transaction, id);
    const ended = await endSessions(transaction, id, caller.id === id ? caller.session : undefined);
    await addToTrail(
      transaction,
      caller,
      'signed out everywhere',
      subjectOf(person),
      `Ended ${ended} of ${person.name}’s sessions.`,
    );
    return ended;
  });
}

/** Ends the caller's session. */
export async function signOut(database: Database, caller: Caller): Promise<void> {
  if (!caller.session) return;
  await endSession(database, caller.id, caller.session);
  await addToTrail(database, caller, 'signed out', subjectOf(caller), 'Signed out.');
}

/** A link with which a person chooses a new password. @throws Problem */
export async function passwordLink(database: Database, caller: Caller, id: string): Promise<OneTimeLink> {
  return database.transaction(async (transaction) => {
    const person = await lockedPerson(transaction, id);
    if (person.withdrawnAt || person.isDemo)
      throw new Problem(
        409,
        'There is no password to choose',
        'Accounts of the demo have none, and without access none is needed.',
      );
    const made = await makeLink(transaction, { ...person, personId: id }, caller.name);
    await addToTrail(
      transaction,
      caller,
      'password link made',
      subjectOf(person),
      `Made a link for a new password of ${person.name}.`,
    );
    return made;
  });
}

/** Writes the rules for kinds and records. Gives all of them as they are now. */
export async function changeRules(database: Database, caller: Caller, rules: AccessRules): Promise<AccessRules> {
  return database.transaction(async (transaction) => {
    await writeRules(transaction, rules);
    const subject = { kind: 'rules' as const, id: 'rules', name: 'Rules' };
    await addToTrail(transaction, caller, 'rules changed', subject, 'Changed who sees and files what.', { ...rules });
    return readRules(transaction);
  });
}

async function lockedPerson(connection: Connection, id: string): Promise<Person> {
  const [person] = await connection.select().from(people).where(eq(people.id, id)).for('update');
  if (!person) throw new Problem(404, 'No such person', 'Load the page again to see who is there.');
  return person;
}

/** Somebody has to be able to let others in. Who asks at the same time waits here. @throws Problem */
async function refuseLast(connection: Connection, person: Person): Promise<void> {
  if (!person.roles.includes('administrator') || person.withdrawnAt) return;
  await connection.execute(sql`select pg_advisory_xact_lock(hashtext('administrators'))`);
  const [others] = await connection
    .select({ count: count() })
    .from(people)
    .where(and(ne(people.id, person.id), isAdministrator()));
  if (others!.count === 0)
    throw new Problem(
      409,
      'The last administrator stays',
      'Make another person an administrator first. Nothing was changed.',
    );
}
