import type { seriesEndpoints } from '../../core/contract/series';
import type { Answers } from '../edge/answer';
import { firstNumbers, listSeries, removeSeries, setUpSeries } from '../productions/series';

export const seriesAnswers: Answers<typeof seriesEndpoints> = {
  'GET /series': ({ services }) => listSeries(services.database),
  'GET /series/numbers': ({ query }) => firstNumbers(query.formula),
  'PUT /series/{id}': async ({ parameters, body, services, caller }) => {
    await setUpSeries(services.database, parameters.id, body, caller);
    return { done: true };
  },
  'DELETE /series/{id}': async ({ parameters, services, caller }) => {
    await removeSeries(services.database, parameters.id, caller);
    return { done: true };
  },
};
