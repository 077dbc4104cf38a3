import { getRouterParam } from 'h3';
import { registeredFor } from '../../../filing/registered';
import { route } from '../../../problem';
import { services } from '../../../services';

export default route(async (event) => {
  const { database } = await services();
  return registeredFor(database, decodeURIComponent(getRouterParam(event, 'id') ?? ''), new Date());
});
