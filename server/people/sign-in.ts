import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Connection, Database } from '../db/database';
import { people } from '../db/schema';
import { Problem } from '../problem';
import { unseal } from '../secrets/seal';
import { addToTrail } from '../trail';
import { countGuess } from './guesses';
import { codeStep, plainRecoveryCode } from './one-time-codes';
import { isPassword } from './passwords';
import { tokenHash } from './random-token';
import { beginSession, type Origin } from './sessions';

/** A person as the database has them. */
export type Person = typeof people.$inferSelect;

/** Someone who is signed in now, and what their cookie holds. */
export interface SignedIn {
  person: Person;
  cookie: string;
}

/**
 * Signs in with a password, and with a one-time code where the person has them. The answer to a wrong one is the same, and takes
 * as long, whether the name is known or not. @throws Problem
 */
export async function signIn(
  database: Database,
  { email, password, code }: { email: string; password: string; code?: string },
  origin: Origin,
): Promise<SignedIn> {
  const name = email.toLowerCase();
  const takeBack = await countGuess(name, origin.address);
  const [person] = await database
    .select()
    .from(people)
    .where(and(eq(people.email, name), isNull(people.withdrawnAt)));
  if (!(await isPassword(password, person?.passwordHash)) || !person) throw await refused(database, name, 'password');
  if (person.codesSince) {
    if (!code) {
      await takeBack();
      throw new Problem(401, 'A code is needed', 'Type the code that your app shows now, or a recovery code.', {
        reason: 'code',
      });
    }
    if (!(await useCode(database, person, code))) throw await refused(database, name, 'code');
  }
  await takeBack();
  return begin(database, person, origin, 'Signed in.');
}

/** Accounts of the demo. */
export async function demoAccounts(connection: Connection) {
  return connection
    .select({ id: people.id, name: people.name, roles: people.roles })
    .from(people)
    .where(and(eq(people.isDemo, true), isNull(people.withdrawnAt)))
    .orderBy(asc(people.createdAt), asc(people.id));
}

/** Signs in as an account of the demo. @throws Problem */
export async function signInToDemo(database: Database, id: string, origin: Origin): Promise<SignedIn> {
  const [person] = await database
    .select()
    .from(people)
    .where(and(eq(people.id, id), eq(people.isDemo, true), isNull(people.withdrawnAt)));
  if (!person)
    throw new Problem(
      404,
      'No such account',
      'The demo is not loaded here, or it has no such account. Load the page again.',
    );
  return begin(database, person, origin, 'Signed in to the demo.');
}

/** Begins a session for someone who has shown who they are. */
export async function begin(database: Connection, person: Person, origin: Origin, sentence: string): Promise<SignedIn> {
  return database.transaction(async (transaction) => {
    const cookie = await beginSession(transaction, person.id, origin);
    await addToTrail(transaction, { ...person, via: 'page' }, 'signed in', subjectOf(person), sentence, { ...origin });
    return { person, cookie };
  });
}

/** A person as the trail names them. */
export const subjectOf = ({ id, name }: Pick<Person, 'id' | 'name'>) => ({ kind: 'person' as const, id, name });

/**
 * Uses up a one-time code or a recovery code. Of two requests with the same code one is too late: the row tells which.
 */
export async function useCode(connection: Connection, person: Person, code: string): Promise<boolean> {
  const secret = person.codeSecret && unseal(person.codeSecret, 'one-time codes');
  if (!secret) return false;
  return connection.transaction(async (transaction) => {
    const [now] = await transaction.select().from(people).where(eq(people.id, person.id)).for('update');
    const step = codeStep(secret, code, now!.lastCodeStep);
    if (step !== undefined) {
      await transaction.update(people).set({ lastCodeStep: step }).where(eq(people.id, person.id));
      return true;
    }
    const hash = tokenHash(plainRecoveryCode(code));
    if (!now!.recoveryCodes.includes(hash)) return false;
    const left = now!.recoveryCodes.filter((each) => each !== hash);
    await transaction.update(people).set({ recoveryCodes: left }).where(eq(people.id, person.id));
    await addToTrail(
      transaction,
      { ...person, via: 'page' },
      'recovery code used',
      subjectOf(person),
      `Used a recovery code; ${left.length} are left.`,
    );
    return true;
  });
}

async function refused(database: Database, name: string, what: 'password' | 'code'): Promise<Problem> {
  await addToTrail(
    database,
    { name },
    'sign-in refused',
    { kind: 'person', id: '', name },
    what === 'code' ? 'A wrong code was typed.' : 'A wrong name or password was typed.',
  );
  return what === 'code'
    ? new Problem(401, 'This code is not right', 'Type the code that your app shows now. Each code works once.', {
        reason: 'code',
      })
    : new Problem(401, 'Sign-in failed', 'The e-mail address or the password is wrong. Look at both, then try again.', {
        reason: 'password',
      });
}
