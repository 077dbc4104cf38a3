import type { placeEndpoints } from '../../core/contract/places';
import { listPlaces, removePlace, setUpPlace, testPlace } from '../copies/places';
import type { Answers } from '../edge/answer';

export const placeAnswers: Answers<typeof placeEndpoints> = {
  'GET /places': ({ services }) => listPlaces(services.database),
  'PUT /places/{id}': async ({ parameters, body, services, caller }) => {
    await setUpPlace(services.database, parameters.id, body, caller);
    return { done: true };
  },
  'POST /places/{id}/test': async ({ parameters, services }) => {
    await testPlace(services.database, parameters.id);
    return { done: true };
  },
  'DELETE /places/{id}': async ({ parameters, services, caller }) => {
    await removePlace(services.database, parameters.id, caller);
    return { done: true };
  },
};
