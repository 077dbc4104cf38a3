import { asc, eq } from 'drizzle-orm';
import type { Role } from '../../core/contract/permissions';
import { drawCode } from '../../core/template/blocks/draw-code';
import type { Database } from '../db/database';
import { people } from '../db/schema';
import { Problem } from '../problem';
import { seal, unseal } from '../secrets/seal';
import { addToTrail } from '../trail';
import { isAdministrator } from './administrators';
import { readRules } from './access';
import type { Caller } from './caller';
import { countGuess } from './guesses';
import { codeAddress, codeStep, newCodeSecret, newRecoveryCodes, plainRecoveryCode } from './one-time-codes';
import { hashed, isPassword, refuseWeak } from './passwords';
import { tokenHash } from './random-token';
import { endSession, endSessions } from './sessions';
import { subjectOf, useCode, type Person } from './sign-in';

/** Who someone is to themselves, and whom to ask for what their roles do not allow. */
export async function described(database: Database, person: Person, roles: readonly Role[] = person.roles) {
  const [rules, administrators] = await Promise.all([
    readRules(database),
    database.select({ name: people.name }).from(people).where(isAdministrator()).orderBy(asc(people.name)).limit(5),
  ]);
  return {
    id: person.id,
    name: person.name,
    email: person.email,
    roles: [...roles],
    isDemo: person.isDemo,
    codes: person.codesSince !== null,
    recoveryCodes: person.recoveryCodes.length,
    rules,
    administrators: administrators.map(({ name }) => name),
  };
}

/** Who a caller is. */
export const readMe = async (database: Database, caller: Caller) =>
  described(database, await personOf(database, caller), caller.roles);

/** Changes the caller's password and ends their other sessions. @throws Problem */
export async function changePassword(
  database: Database,
  caller: Caller,
  { current, new: chosen }: { current: string; new: string },
  address: string,
): Promise<void> {
  const person = await shownPassword(database, caller, current, address);
  refuseWeak(chosen, [person.name, person.email]);
  const passwordHash = await hashed(chosen);
  await database.transaction(async (transaction) => {
    await transaction.update(people).set({ passwordHash }).where(eq(people.id, person.id));
    await endSessions(transaction, person.id, caller.session);
    await addToTrail(transaction, caller, 'password changed', subjectOf(person), 'Changed the password.');
  });
}

/** Begins with one-time codes: they count once a first code confirms them. @throws Problem */
export async function beginCodes(database: Database, caller: Caller, password: string, address: string) {
  const person = await shownPassword(database, caller, password, address);
  if (person.codesSince)
    throw new Problem(409, 'Codes are on already', 'Turn them off first to begin with another app.');
  const secret = newCodeSecret();
  await database
    .update(people)
    .set({ codeSecret: seal(secret, 'one-time codes') })
    .where(eq(people.id, person.id));
  const uri = codeAddress(secret, person.email);
  const svg = drawCode('qrcode', uri)!;
  return { secret, uri, picture: `data:image/svg+xml;base64,${Buffer.from(svg).toString('base64')}` };
}

/** Turns codes on by a first one. Gives the recovery codes, which are told here and never again. @throws Problem */
export async function confirmCodes(
  database: Database,
  caller: Caller,
  code: string,
  address: string,
): Promise<string[]> {
  const person = await personOf(database, caller);
  const secret = person.codeSecret && unseal(person.codeSecret, 'one-time codes');
  if (!secret || person.codesSince)
    throw new Problem(
      409,
      'There is nothing to confirm',
      'Begin with one-time codes first, then type the code that the app shows.',
    );
  const takeBack = await countGuess(person.email, address);
  const step = codeStep(secret, code, null);
  if (step === undefined) throw wrongCode();
  await takeBack();
  const codes = newRecoveryCodes();
  await database.transaction(async (transaction) => {
    await transaction
      .update(people)
      .set({
        codesSince: new Date(),
        lastCodeStep: step,
        recoveryCodes: codes.map((each) => tokenHash(plainRecoveryCode(each))),
      })
      .where(eq(people.id, person.id));
    await addToTrail(transaction, caller, 'codes on', subjectOf(person), 'Turned one-time codes on.');
  });
  return codes;
}

/** Turns codes off. @throws Problem */
export async function endCodes(
  database: Database,
  caller: Caller,
  { password, code }: { password: string; code: string },
  address: string,
): Promise<void> {
  const person = await shownPassword(database, caller, password, address);
  if (!person.codesSince) throw new Problem(409, 'Codes are off already', 'Nothing was changed.');
  const takeBack = await countGuess(person.email, address);
  if (!(await useCode(database, person, code))) throw wrongCode();
  await takeBack();
  await database.transaction(async (transaction) => {
    await transaction
      .update(people)
      .set({ codeSecret: null, codesSince: null, lastCodeStep: null, recoveryCodes: [] })
      .where(eq(people.id, person.id));
    await addToTrail(transaction, caller, 'codes off', subjectOf(person), 'Turned one-time codes off.');
  });
}

/** Signs the caller out in one of their places. @throws Problem */
export async function endOwnSession(database: Database, caller: Caller, id: string): Promise<void> {
  await database.transaction(async (transaction) => {
    if (!(await endSession(transaction, caller.id, id)))
      throw new Problem(404, 'No such session', 'It may be over already. Load the page again.');
    await addToTrail(transaction, caller, 'signed out', subjectOf(caller), 'Ended one of their own sessions.');
  });
}

async function personOf(database: Database, { id }: Caller): Promise<Person> {
  const [person] = await database.select().from(people).where(eq(people.id, id));
  return person!;
}

/** The caller, once they have shown their password; guesses here count like those at sign-in. @throws Problem */
async function shownPassword(database: Database, caller: Caller, password: string, address: string): Promise<Person> {
  const person = await personOf(database, caller);
  if (person.isDemo)
    throw new Problem(
      422,
      'Accounts of the demo have no password',
      'Invite yourself under Setup, People, and try it with that account.',
    );
  const takeBack = await countGuess(person.email, address);
  if (!(await isPassword(password, person.passwordHash)))
    throw new Problem(
      422,
      'The password is not right',
      'Type the password that you sign in with now. Nothing was changed.',
      {
        reason: 'password',
      },
    );
  await takeBack();
  return person;
}

const wrongCode = () =>
  new Problem(422, 'This code is not right', 'Type the code that your app shows now. Each code works once.', {
    reason: 'code',
  });
