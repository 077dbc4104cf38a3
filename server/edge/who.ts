import { deleteCookie, getCookie, getHeader, setCookie, type H3Event } from 'h3';
import { whyNot } from '../../core/contract/permissions';
import type { Endpoint } from '../../core/contract/endpoint';
import { config } from '../config';
import type { Database } from '../db/database';
import { forbidden, readRules } from '../people/access';
import type { Caller } from '../people/caller';
import { COOKIE_SECONDS, sessionOf, type Origin } from '../people/sessions';
import { tokenBearer } from '../people/tokens';
import { Problem } from '../problem';
import { addressOf } from './address';

const COOKIE = 'lumbix';

/** Whether a request brings the cookie of a session, which may be over. */
export const hasSession = (event: H3Event): boolean => getCookie(event, COOKIE) !== undefined;

/** Who asks, by the cookie of a session or by a token; undefined where a request brings neither. @throws Problem for one that does not hold */
export async function whoAsks(event: H3Event, database: Database): Promise<Caller | undefined> {
  const authorization = getHeader(event, 'authorization');
  if (authorization !== undefined) {
    const bearer = await tokenBearer(database, /^Bearer (\S{1,200})$/i.exec(authorization)?.[1] ?? '');
    if (!bearer)
      throw new Problem(
        401,
        'This token is not valid',
        'It is not known, was withdrawn, or has expired. Make a new one.',
        { reason: 'token' },
      );
    return { ...bearer.person, roles: bearer.roles, rules: await readRules(database), via: 'token' };
  }
  const cookie = getCookie(event, COOKIE);
  if (cookie === undefined) return undefined;
  const [found, rules] = await Promise.all([sessionOf(database, cookie), readRules(database)]);
  return found && { ...found.person, rules, via: 'page', session: found.session };
}

/** Refuses a caller whom an endpoint does not let in. @throws Problem */
export function admitCaller(caller: Caller | undefined, { may, people }: Endpoint): asserts caller is Caller {
  if (!caller)
    throw new Problem(401, 'Sign in first', 'You are not signed in, or your session is over. Nothing was changed.', {
      reason: 'session',
    });
  if (people && caller.via === 'token')
    throw new Problem(
      403,
      'Tokens do not reach this',
      'Only a person who is signed in may do it. Nothing was changed.',
      { reason: 'roles' },
    );
  const reason = may === 'own' || may === 'anyone' ? undefined : whyNot(may, caller.roles);
  if (reason) throw forbidden(reason);
}

/** Where a request comes from, for the list of sessions. */
export const originOf = (event: H3Event): Origin => ({
  agent: getHeader(event, 'user-agent') ?? '',
  address: addressOf(event),
});

/** Has the browser keep a session: no script reads it, no other site sends it along. */
export function keepSession(event: H3Event, cookie: string): void {
  setCookie(event, COOKIE, cookie, { ...attributes(), maxAge: COOKIE_SECONDS });
}

/** Has the browser forget its session. */
export function forgetSession(event: H3Event): void {
  deleteCookie(event, COOKIE, attributes());
}

const attributes = () => ({ httpOnly: true, sameSite: 'lax', secure: config.isSecure, path: '/' }) as const;
