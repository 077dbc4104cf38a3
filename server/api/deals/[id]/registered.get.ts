import { getRouterParam } from 'h3';
import { registeredFor } from '../../../filing/registered';
import { route } from '../../../problem';
import { services } from '../../../services';

/** What has been filed for a deal, as the register answers formulas. */
export default route(async (event) => {
  const { database } = await services();
  return registeredFor(database, decodeURIComponent(getRouterParam(event, 'id') ?? ''), new Date());
});
