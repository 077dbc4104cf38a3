import { getQuery } from 'h3';
import { listDeals } from '../../deals';
import { route } from '../../problem';
import { dealsQuery } from '../../requests';
import { services } from '../../services';

/** A page of the list of deals, filtered and sorted. */
export default route(async (event) => {
  const query = await dealsQuery.validate(getQuery(event));
  return listDeals((await services()).database, query);
});
