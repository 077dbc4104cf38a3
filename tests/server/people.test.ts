import { eq, sql } from 'drizzle-orm';
import { TOTP } from 'otpauth';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { connections, events, guesses, people, sessions, trail } from '../../server/db/schema';
import { usualRules, readRules, refuseUnfiledKind, refuseUnseenKind, writeRules } from '../../server/people/access';
import type { Caller } from '../../server/people/caller';
import { keepDemoPeople } from '../../server/demo/demo-people';
import { countGuess } from '../../server/people/guesses';
import {
  acceptInvitation,
  firstLink,
  invite,
  invitationOf,
  withdrawInvitation,
  openInvitations,
} from '../../server/people/invitations';
import { beginCodes, changePassword, confirmCodes, endCodes } from '../../server/people/own';
import { changeRoles, listPeople, passwordLink, setWithdrawn } from '../../server/people/people';
import { beginSession, openSessions, sessionOf } from '../../server/people/sessions';
import { signIn, signInToDemo, demoAccounts } from '../../server/people/sign-in';
import { Problem } from '../../server/problem';
import { sealAnew } from '../../server/secrets/renew';
import { newKeyLine } from '../../server/secrets/keys';
import { unseal } from '../../server/secrets/seal';
import { tidyUp } from '../../server/tidy-up';
import { readTrail, trailCsv } from '../../server/trail';
import { demoPeople } from '../../demo/people';
import { callerWith } from '../callers';
import { openStack, type Stack } from './stack';

const PASSWORD = 'glass rafter violet hinge 42';
const ORIGIN = { agent: 'a test', address: '192.0.2.1' };
let stack: Stack;
const database = () => openDatabase().database;

beforeAll(async () => {
  stack = await openStack();
});
afterAll(async () => {
  await closeDatabase();
  await stack.close();
});
beforeEach(() => database().delete(guesses));

const statusOf = async (call: Promise<unknown>): Promise<number> => {
  const thrown: unknown = await call.catch((problem: unknown) => problem);
  if (!(thrown instanceof Problem)) return 200;
  return thrown.status;
};
const tokenOf = ({ link }: { link: string }) => link.split('#')[1]!;

/** A person who joined by an invitation. */
async function joined(email: string, ...roles: Caller['roles']): Promise<typeof people.$inferSelect> {
  const link = await invite(database(), callerWith('administrator'), { name: 'Vera Stroud', email, roles });
  return (await acceptInvitation(database(), { token: tokenOf(link), password: PASSWORD }, ORIGIN)).person;
}
const asCaller = (person: typeof people.$inferSelect): Caller => ({ ...person, rules: usualRules, via: 'page' });

describe('an invitation', () => {
  it('works once, though two take it at the same moment', async () => {
    const link = await invite(database(), callerWith('administrator'), {
      name: 'Vera',
      email: 'Vera@x.example',
      roles: ['reader'],
    });
    const body = { token: tokenOf(link), password: PASSWORD };
    const statuses = await Promise.all([1, 2, 3].map(() => statusOf(acceptInvitation(database(), body, ORIGIN))));
    expect(statuses.sort()).toEqual([200, 410, 410]);
    expect(await statusOf(invitationOf(database(), body.token))).toBe(410);
    expect(
      await statusOf(invite(database(), callerWith(), { name: 'V', email: 'vera@X.example', roles: ['reader'] })),
    ).toBe(409);
  });

  it('expires, can be withdrawn, and gives way to a newer one', async () => {
    const about = { name: 'Odo', email: 'odo@x.example', roles: ['reader'] as const };
    const older = await invite(database(), callerWith(), about);
    const newer = await invite(database(), callerWith(), about);
    expect(await statusOf(invitationOf(database(), tokenOf(older)))).toBe(410);
    await database().execute(
      sql`update invitations set expires_at = now() - interval '1 second' where email = 'odo@x.example'`,
    );
    expect(await statusOf(invitationOf(database(), tokenOf(newer)))).toBe(410);
    const last = await invite(database(), callerWith(), about);
    const [open] = await openInvitations(database());
    await withdrawInvitation(database(), callerWith(), open!.id);
    expect(await statusOf(invitationOf(database(), tokenOf(last)))).toBe(410);
  });

  it('is not kept as it is told, and a weak password does not use it up', async () => {
    const link = await invite(database(), callerWith(), {
      name: 'Ora Quist',
      email: 'ora@x.example',
      roles: ['reader'],
    });
    const rows = await database().execute(sql`select * from invitations`);
    expect(JSON.stringify(rows.rows)).not.toContain(tokenOf(link));
    for (const password of ['ora quist 2026', 'passwordpassword', 'qwertyuiop12', 'aaaaaaaaaaaaaaaa'])
      expect(await statusOf(acceptInvitation(database(), { token: tokenOf(link), password }, ORIGIN)), password).toBe(
        422,
      );
    expect((await invitationOf(database(), tokenOf(link))).name).toBe('Ora Quist');
  });
});

describe('guessing', () => {
  it('lets the limit through and no more, though a hundred try at once', async () => {
    await joined('guessed@x.example', 'reader');
    const tries = Array.from({ length: 100 }, (_, at) =>
      statusOf(signIn(database(), { email: 'guessed@x.example', password: `wrong ${at}` }, ORIGIN)),
    );
    const statuses = await Promise.all(tries);
    expect(statuses.filter((status) => status === 401)).toHaveLength(5);
    expect(statuses.filter((status) => status === 429)).toHaveLength(95);
    // The right one has to wait as well; from elsewhere it does not.
    const right = { email: 'guessed@x.example', password: PASSWORD };
    expect(await statusOf(signIn(database(), right, ORIGIN))).toBe(429);
    expect(await statusOf(signIn(database(), right, { ...ORIGIN, address: '192.0.2.9' }))).toBe(200);
  });

  it('is limited for an address that tries many names', async () => {
    const tries = Array.from({ length: 60 }, (_, at) =>
      statusOf(countGuess(`name ${at}`, '192.0.2.2').then(() => undefined)),
    );
    expect((await Promise.all(tries)).filter((status) => status === 429)).toHaveLength(20);
  });

  it('starts anew after the right password', async () => {
    await joined('forgetful@x.example', 'reader');
    for (let round = 0; round < 3; round++) {
      for (let wrong = 0; wrong < 4; wrong++)
        expect(await statusOf(signIn(database(), { email: 'forgetful@x.example', password: 'no' }, ORIGIN))).toBe(401);
      expect(await statusOf(signIn(database(), { email: 'Forgetful@x.example', password: PASSWORD }, ORIGIN))).toBe(
        200,
      );
    }
  });

  it('learns nothing from the answer or its time: a name that is known is answered like one that is not', async () => {
    await joined('known@x.example', 'reader');
    const answer = async (email: string) => {
      await database().delete(guesses);
      const began = performance.now();
      const thrown = (await signIn(database(), { email, password: 'wrong' }, ORIGIN).catch(
        (problem: unknown) => problem,
      )) as Problem;
      return { took: performance.now() - began, told: `${thrown.status} ${thrown.title} ${thrown.detail}` };
    };
    await answer('nobody@x.example');
    const rounds: { took: number; told: string }[][] = [];
    for (let round = 0; round < 15; round++)
      rounds.push([await answer('known@x.example'), await answer('nobody@x.example')]);
    expect(new Set(rounds.flat().map(({ told }) => told)).size).toBe(1);
    const middle = (at: number) => rounds.map((each) => each[at]!.took).sort((a, b) => a - b)[7]!;
    // Hashing takes tens of milliseconds: one that were left out would show as a fraction of it.
    expect(middle(0) / middle(1)).toBeGreaterThan(0.6);
    expect(middle(0) / middle(1)).toBeLessThan(1.6);
  });
});

describe('a session', () => {
  it('is another one at each sign-in, and is kept as a hash alone', async () => {
    await joined('twice@x.example', 'reader');
    const right = { email: 'twice@x.example', password: PASSWORD };
    const [one, other] = [await signIn(database(), right, ORIGIN), await signIn(database(), right, ORIGIN)];
    expect(one.cookie).not.toBe(other.cookie);
    const token = unseal(one.cookie, 'session')!;
    const rows = await database().select().from(sessions);
    expect(JSON.stringify(rows)).not.toContain(token);
    expect(await sessionOf(database(), token)).toBeUndefined();
    expect((await sessionOf(database(), one.cookie))?.person.email).toBe('twice@x.example');
    // One bit of it changed, and it is none.
    const forged = `${one.cookie.slice(0, -1)}${one.cookie.endsWith('A') ? 'B' : 'A'}`;
    expect(await sessionOf(database(), forged.slice(0, -6) + forged.slice(-5) + 'x')).toBeUndefined();
  });

  it('ends with other roles, with access that is taken away, and elsewhere with another password', async () => {
    const person = await joined('moved@x.example', 'reader');
    const session = () => beginSession(database(), person.id, ORIGIN);
    let cookie = await session();
    await changeRoles(database(), callerWith(), person.id, ['producer']);
    expect(await sessionOf(database(), cookie)).toBeUndefined();
    cookie = await session();
    await setWithdrawn(database(), callerWith(), person.id, true);
    expect(await sessionOf(database(), cookie)).toBeUndefined();
    await setWithdrawn(database(), callerWith(), person.id, false);
    expect(await sessionOf(database(), cookie)).toBeUndefined();
    const [here, there] = [await session(), await session()];
    const kept = (await sessionOf(database(), here))!.session;
    const chosen = { current: PASSWORD, new: 'another lantern of nine reeds' };
    await changePassword(database(), { ...asCaller(person), session: kept }, chosen, '192.0.2.1');
    expect(await sessionOf(database(), here)).toBeDefined();
    expect(await sessionOf(database(), there)).toBeUndefined();
  });
});

describe('the list of people', () => {
  it('counts the sessions that each person’s own list shows, and none that is over', async () => {
    const person = await joined('counted@x.example', 'reader');
    for (const kept of ['1 hour', '5 hours', '13 hours']) {
      const { session } = (await sessionOf(database(), await beginSession(database(), person.id, ORIGIN)))!;
      const then = sql.raw(`now() - interval '${kept}'`);
      await database().execute(sql`update sessions set created_at = ${then}, seen_at = ${then} where id = ${session}`);
    }
    const { people: listed } = await listPeople(database());
    expect(listed.find(({ id }) => id === person.id)!.sessions).toBe(2);
    expect(await openSessions(database(), person.id)).toHaveLength(2);
  });
});

describe('what counts no more', () => {
  it('is dropped at a start, and nothing else is', async () => {
    const person = await joined('tidy@x.example', 'reader');
    const [older, newer] = [
      await beginSession(database(), person.id, ORIGIN),
      await beginSession(database(), person.id, ORIGIN),
    ];
    const { session } = (await sessionOf(database(), older))!;
    await database().execute(sql`update sessions set created_at = now() - interval '367 days' where id = ${session}`);
    await countGuess('somebody', '192.0.2.77');
    await tidyUp(database());
    expect(await database().select().from(guesses)).not.toEqual([]);
    expect(await database().select().from(sessions).where(eq(sessions.id, session))).toEqual([]);
    expect(await sessionOf(database(), newer)).toBeDefined();
    await tidyUp(database(), Date.now() + 25 * 3_600_000);
    expect(await database().select().from(guesses)).toEqual([]);
  });
});

describe('one-time codes', () => {
  it('work once, for one of two who bring the same, and not a step too late', async () => {
    const person = await joined('codes@x.example', 'reader');
    const { secret } = await beginCodes(database(), asCaller(person), PASSWORD, '192.0.2.1');
    const app = new TOTP({ secret });
    expect(await statusOf(confirmCodes(database(), asCaller(person), '000000', '192.0.2.1'))).toBe(422);
    const recovery = await confirmCodes(database(), asCaller(person), app.generate(), '192.0.2.1');
    expect(new Set(recovery).size).toBe(10);
    const right = { email: 'codes@x.example', password: PASSWORD };
    expect(await statusOf(signIn(database(), right, ORIGIN))).toBe(401);
    const next = app.generate({ timestamp: Date.now() + 30_000 });
    const both = await Promise.all([1, 2].map(() => statusOf(signIn(database(), { ...right, code: next }, ORIGIN))));
    expect(both.sort()).toEqual([200, 401]);
    expect(
      await statusOf(signIn(database(), { ...right, code: app.generate({ timestamp: Date.now() - 120_000 }) }, ORIGIN)),
    ).toBe(401);
    const twice = [];
    for (const code of [recovery[3]!, recovery[3]!])
      twice.push(await statusOf(signIn(database(), { ...right, code }, ORIGIN)));
    expect(twice).toEqual([200, 401]);
    await endCodes(database(), asCaller(person), { password: PASSWORD, code: recovery[4]! }, '192.0.2.1');
    expect(await statusOf(signIn(database(), right, ORIGIN))).toBe(200);
  });

  it('are turned off by the link for a new password, which an administrator gives', async () => {
    const person = await joined('lost@x.example', 'reader');
    const { secret } = await beginCodes(database(), asCaller(person), PASSWORD, '192.0.2.1');
    await confirmCodes(database(), asCaller(person), new TOTP({ secret }).generate(), '192.0.2.1');
    const link = await passwordLink(database(), callerWith(), person.id);
    const password = 'seven copper kettles under ivy';
    await acceptInvitation(database(), { token: tokenOf(link), password }, ORIGIN);
    expect(await statusOf(signIn(database(), { email: 'lost@x.example', password: PASSWORD }, ORIGIN))).toBe(401);
    expect(await statusOf(signIn(database(), { email: 'lost@x.example', password }, ORIGIN))).toBe(200);
  });
});

describe('roles', () => {
  it('leave one administrator at least, though two are taken away at once', async () => {
    await keepDemoPeople(database(), []);
    await database().execute(sql`update people set withdrawn_at = now()`);
    const [one, other] = [await joined('a1@x.example', 'administrator'), await joined('a2@x.example', 'administrator')];
    const statuses = await Promise.all(
      [one, other].map(({ id }) => statusOf(changeRoles(database(), callerWith(), id, ['reader']))),
    );
    expect(statuses.sort()).toEqual([200, 409]);
    const [left] = await database()
      .select()
      .from(people)
      .where(sql`withdrawn_at is null and 'administrator' = any(roles)`);
    expect(await statusOf(setWithdrawn(database(), callerWith(), left!.id, true))).toBe(409);
    expect(await firstLink(database())).toBeUndefined();
    await database().execute(sql`update people set withdrawn_at = now() where id = ${left!.id}`);
    // Nobody can let people in: the start command has a link, for whoever says who they are.
    const token = (await firstLink(database()))!.split('#')[1]!;
    expect(await statusOf(acceptInvitation(database(), { token, password: PASSWORD }, ORIGIN))).toBe(422);
    const first = { token, password: PASSWORD, name: 'Ada Holm', email: 'ada@x.example' };
    expect((await acceptInvitation(database(), first, ORIGIN)).person.roles).toContain('administrator');
  });

  it('decide who files a kind and who sees it, as the rules say', async () => {
    const refused = (call: () => void): string => {
      try {
        call();
      } catch (problem) {
        return (problem as Problem).detail;
      }
      return '';
    };
    expect(refused(() => refuseUnfiledKind(callerWith('producer'), 'invoice'))).toBe(
      'To file documents of the kind “invoice” takes the role finance. Ask an administrator for it. Nothing was changed.',
    );
    expect(refused(() => refuseUnfiledKind(callerWith('finance'), 'invoice'))).toBe('');
    expect(refused(() => refuseUnfiledKind(callerWith('finance'), 'quote'))).toContain('the role producer');
    await writeRules(database(), { kinds: { quote: { see: ['author'], act: ['finance'] } }, records: {} });
    const rules = await readRules(database());
    expect(refused(() => refuseUnseenKind({ ...callerWith('reader'), rules }, 'quote'))).toContain('the role author');
    expect(refused(() => refuseUnfiledKind({ ...callerWith('finance', 'author'), rules }, 'quote'))).toBe('');
    expect(rules.kinds.invoice).toEqual({ see: [], act: ['finance'] });
  });
});

describe('accounts of the demo', () => {
  it('sign in with a click where the demo is loaded, and nowhere else', async () => {
    await keepDemoPeople(database(), demoPeople);
    const accounts = await demoAccounts(database());
    expect(accounts.map(({ name }) => name)).toEqual(demoPeople.map(({ name }) => name));
    expect(await statusOf(signInToDemo(database(), accounts[0]!.id, ORIGIN))).toBe(200);
    const own = await joined('own@x.example', 'administrator');
    expect(await statusOf(signInToDemo(database(), own.id, ORIGIN))).toBe(404);
    await keepDemoPeople(database(), []);
    expect(await statusOf(signInToDemo(database(), accounts[0]!.id, ORIGIN))).toBe(404);
  });
});

describe('secrets', () => {
  it('are sealed at rest, for one purpose, and sealed anew with a newer key', async () => {
    const person = await joined('sealed@x.example', 'reader');
    const { secret } = await beginCodes(database(), asCaller(person), PASSWORD, '192.0.2.1');
    const sealed = async () => (await database().select().from(people).where(eq(people.id, person.id)))[0]!.codeSecret!;
    const [crm] = await database().select().from(connections);
    expect(crm!.sealedSecret).not.toContain('local-only');
    const before = await sealed();
    expect(unseal(before, 'one-time codes')).toBe(secret);
    expect(unseal(before, 'session')).toBeUndefined();
    const old = process.env.LUMBIX_KEYS!;
    try {
      process.env.LUMBIX_KEYS = `${newKeyLine()},${old}`;
      expect(await sealAnew(database())).toBeGreaterThan(1);
      const after = await sealed();
      expect(after).not.toBe(before);
      process.env.LUMBIX_KEYS = process.env.LUMBIX_KEYS.split(',')[0]!;
      expect(unseal(after, 'one-time codes')).toBe(secret);
      expect(unseal(before, 'one-time codes')).toBeUndefined();
      expect(await sealAnew(database())).toBe(0);
      process.env.LUMBIX_KEYS = newKeyLine();
      await expect(sealAnew(database())).rejects.toThrow('is not in the key file');
    } finally {
      process.env.LUMBIX_KEYS = old;
    }
  });
});

describe('the audit trail', () => {
  it('tells who did what to which, and is only ever added to', async () => {
    const person = await joined('told@x.example', 'reader');
    await changeRoles(database(), callerWith('administrator'), person.id, ['finance']);
    const { entries } = await readTrail(database(), { person: person.id, skip: 0, top: 10 });
    expect(entries.map(({ personName, sentence }) => `${personName}: ${sentence}`)).toContain(
      'Tamar Whitlow: Vera Stroud is finance now, and was reader.',
    );
    for (const table of [trail, events]) {
      await expect(database().update(table).set({ sentence: 'nothing' })).rejects.toThrow();
      await expect(database().delete(table)).rejects.toThrow();
    }
    await expect(database().execute(sql`truncate trail`)).rejects.toThrow();
  });

  it('holds no password, code or token, and gives table programs no formula', async () => {
    await invite(database(), callerWith(), { name: '=HYPERLINK("x")', email: 'formula@x.example', roles: ['reader'] });
    const csv = await trailCsv(database(), {});
    expect(csv.split('\r\n')[0]).toBe('at,person,via,act,kind,id,name,sentence,details');
    expect(csv).toContain(`"'=HYPERLINK(""x"")"`);
    expect(csv).not.toContain(PASSWORD);
    expect(csv).not.toMatch(/argon2|lumbix_|#/);
  });
});
