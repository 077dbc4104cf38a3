import { getQuery } from 'h3';
import { route } from '../../problem';
import { listDocuments } from '../../register';
import { registerQuery } from '../../requests';
import { services } from '../../services';

/** A page of the register, filtered and sorted. */
export default route(async (event) => {
  const query = await registerQuery.validate(getQuery(event));
  return listDocuments((await services()).database, query);
});
