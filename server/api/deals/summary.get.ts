import { countDeals, dealFilters } from '../../deals';
import { route } from '../../problem';
import { services } from '../../services';

/** How many deals each view holds, and what the list can be filtered by. */
export default route(async () => {
  const { database } = await services();
  const [counts, filters] = await Promise.all([countDeals(database), dealFilters()]);
  return { counts, ...filters };
});
