import { DEAL } from '../records/record-index';
import type { dealEndpoints } from '../../core/contract/deals';
import { changeField } from '../change';
import { countDeals, dealFilters, dealValues, listDeals, wholeDeal } from '../deals';
import type { Answers } from '../edge/answer';
import { registeredFor } from '../productions/registered';
import { refuseUnseenRecord, seesKind } from '../people/access';

export const dealAnswers: Answers<typeof dealEndpoints> = {
  'GET /deals': ({ query, services, caller }) => {
    refuseUnseenRecord(caller, DEAL);
    return listDeals(services.database, query, caller);
  },
  'GET /deals/summary': async ({ services, caller }) => {
    refuseUnseenRecord(caller, DEAL);
    const [counts, filters] = await Promise.all([countDeals(services.database), dealFilters(services.database)]);
    return { counts, ...filters };
  },
  'GET /deals/{id}': ({ parameters, caller }) => {
    refuseUnseenRecord(caller, DEAL);
    return wholeDeal(parameters.id);
  },
  'GET /deals/{id}/values': ({ parameters, query, caller }) => {
    refuseUnseenRecord(caller, DEAL);
    return dealValues(parameters.id, query.paths.split(','));
  },
  'GET /deals/{id}/registered': async ({ parameters, services, caller }) => {
    refuseUnseenRecord(caller, DEAL);
    const registered = await registeredFor(services.database, parameters.id, new Date());
    return registered.filter(({ kind }) => seesKind(caller, kind));
  },
  'PATCH /fields': async ({ body, services, caller }) => {
    await changeField(services.database, body, caller);
    return { changed: true };
  },
};
