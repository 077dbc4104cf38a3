import type { signInEndpoints } from '../../core/contract/people';
import type { H3Event } from 'h3';
import type { Answers } from '../edge/answer';
import { forgetSession, keepSession, originOf } from '../edge/who';
import { acceptInvitation, invitationOf } from '../people/invitations';
import { described } from '../people/own';
import { signOut } from '../people/people';
import { demoAccounts, signIn, signInToDemo, type SignedIn } from '../people/sign-in';
import type { Services } from '../services';

export const signInAnswers: Answers<typeof signInEndpoints> = {
  'GET /sign-in': async ({ services }) => ({ demo: await demoAccounts(services.database) }),
  'POST /sign-in': async ({ body, services, event }) =>
    begun(event, services, await signIn(services.database, body, originOf(event))),
  'POST /sign-in/demo': async ({ body, services, event }) =>
    begun(event, services, await signInToDemo(services.database, body.id, originOf(event))),
  'POST /invitation': ({ body, services }) => invitationOf(services.database, body.token),
  'POST /invitation/accept': async ({ body, services, event }) =>
    begun(event, services, await acceptInvitation(services.database, body, originOf(event))),
  'DELETE /session': async ({ services, caller, event }) => {
    await signOut(services.database, caller);
    forgetSession(event);
    return { done: true };
  },
};

/** A session that has begun: the browser keeps it, in place of the one that it had. */
async function begun(event: H3Event, { database }: Services, { person, cookie }: SignedIn) {
  keepSession(event, cookie);
  return described(database, person);
}
