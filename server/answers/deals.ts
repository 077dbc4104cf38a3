import type { dealEndpoints } from '../../core/contract/deals';
import { changeField } from '../change';
import { countDeals, dealFilters, dealValues, listDeals, wholeDeal } from '../deals';
import type { Answers } from '../edge/answer';
import { registeredFor } from '../filing/registered';

export const dealAnswers: Answers<typeof dealEndpoints> = {
  'GET /deals': ({ query, services }) => listDeals(services.database, query),
  'GET /deals/summary': async ({ services }) => {
    const [counts, filters] = await Promise.all([countDeals(services.database), dealFilters()]);
    return { counts, ...filters };
  },
  'GET /deals/{id}': ({ parameters }) => wholeDeal(parameters.id),
  'GET /deals/{id}/values': ({ parameters, query }) => dealValues(parameters.id, query.paths.split(',')),
  'GET /deals/{id}/registered': ({ parameters, services }) =>
    registeredFor(services.database, parameters.id, new Date()),
  'PATCH /fields': async ({ body }) => {
    await changeField(body);
    return { changed: true };
  },
};
