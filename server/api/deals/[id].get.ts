import { getRouterParam } from 'h3';
import { wholeDeal } from '../../deals';
import { registeredFor } from '../../filing/registered';
import { route } from '../../problem';
import { services } from '../../services';

export default route(async (event) => {
  const id = decodeURIComponent(getRouterParam(event, 'id') ?? '');
  const { database } = await services();
  const [whole, registered] = await Promise.all([wholeDeal(id), registeredFor(database, id, new Date())]);
  return { ...whole, registered };
});
