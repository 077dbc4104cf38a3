import type { peopleEndpoints } from '../../core/contract/people';
import { changeConnection, readConnection, testConnection } from '../connection';
import type { Answers } from '../edge/answer';
import { fileHeaders } from '../edge/file-headers';
import { keepSession, originOf } from '../edge/who';
import { invite, withdrawInvitation } from '../people/invitations';
import { changeRoles, changeRules, listPeople, passwordLink, setWithdrawn, signOutEverywhere } from '../people/people';
import { beginSession } from '../people/sessions';
import { withdrawToken } from '../people/tokens';
import { readTrail, trailCsv } from '../trail';

const done = { done: true };

export const peopleAnswers: Answers<typeof peopleEndpoints> = {
  'GET /people': ({ services }) => listPeople(services.database),
  'POST /people/invitations': ({ body, services, caller }) => invite(services.database, caller, body),
  'DELETE /people/invitations/{id}': async ({ parameters, services, caller }) => {
    await withdrawInvitation(services.database, caller, parameters.id);
    return done;
  },
  'PUT /people/{id}/roles': async ({ parameters, body, services, caller, event }) => {
    await changeRoles(services.database, caller, parameters.id, body.roles);
    // Whoever changes their own roles goes on in a new session.
    if (parameters.id === caller.id)
      keepSession(event, await beginSession(services.database, caller.id, originOf(event)));
    return done;
  },
  'PUT /people/{id}/withdrawn': async ({ parameters, body, services, caller }) => {
    await setWithdrawn(services.database, caller, parameters.id, body.withdrawn);
    return done;
  },
  'DELETE /people/{id}/sessions': async ({ parameters, services, caller }) => ({
    ended: await signOutEverywhere(services.database, caller, parameters.id),
  }),
  'POST /people/{id}/link': ({ parameters, services, caller }) =>
    passwordLink(services.database, caller, parameters.id),
  'DELETE /people/tokens/{id}': async ({ parameters, services, caller }) => {
    await withdrawToken(services.database, caller, parameters.id);
    return done;
  },
  'PUT /people/rules': ({ body, services, caller }) => changeRules(services.database, caller, body),
  'GET /connection': ({ services }) => readConnection(services.database),
  'PUT /connection': async ({ body, services, caller }) => {
    await changeConnection(services.database, caller, body);
    return done;
  },
  'POST /connection/test': () => testConnection(),
  'GET /trail': ({ query, services }) => readTrail(services.database, query),
  'GET /trail.csv': async ({ query, services }) => ({
    bytes: await trailCsv(services.database, query),
    headers: fileHeaders('text/csv; charset=utf-8', 'Lumbix audit trail.csv', 'attachment'),
  }),
};
