import type { ownEndpoints } from '../../core/contract/people';
import type { Answers } from '../edge/answer';
import { addressOf } from '../edge/address';
import { beginCodes, changePassword, confirmCodes, endCodes, endOwnSession, readMe } from '../people/own';
import { signOutEverywhere } from '../people/people';
import { openSessions } from '../people/sessions';
import { makeToken, openTokens, withdrawToken } from '../people/tokens';

const done = { done: true };

export const ownAnswers: Answers<typeof ownEndpoints> = {
  'GET /me': ({ services, caller }) => readMe(services.database, caller),
  'PUT /me/password': async ({ body, services, caller, event }) => {
    await changePassword(services.database, caller, body, addressOf(event));
    return done;
  },
  'GET /me/sessions': ({ services, caller }) => openSessions(services.database, caller.id, caller.session),
  'DELETE /me/sessions': async ({ services, caller }) => ({
    ended: await signOutEverywhere(services.database, caller, caller.id),
  }),
  'DELETE /me/sessions/{id}': async ({ parameters, services, caller }) => {
    await endOwnSession(services.database, caller, parameters.id);
    return done;
  },
  'POST /me/codes': ({ body, services, caller, event }) =>
    beginCodes(services.database, caller, body.password, addressOf(event)),
  'POST /me/codes/confirm': async ({ body, services, caller, event }) => ({
    recoveryCodes: await confirmCodes(services.database, caller, body.code, addressOf(event)),
  }),
  'POST /me/codes/off': async ({ body, services, caller, event }) => {
    await endCodes(services.database, caller, body, addressOf(event));
    return done;
  },
  'GET /me/tokens': ({ services, caller }) => openTokens(services.database, caller.id),
  'POST /me/tokens': ({ body, services, caller }) => makeToken(services.database, caller, body),
  'DELETE /me/tokens/{id}': async ({ parameters, services, caller }) => {
    await withdrawToken(services.database, caller, parameters.id, caller.id);
    return done;
  },
};
