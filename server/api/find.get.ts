import { getQuery } from 'h3';
import { find } from '../find';
import { route } from '../problem';
import { findQuery } from '../requests';
import { services } from '../services';

/** Deals and documents by a few letters of their names or numbers. */
export default route(async (event) => {
  const { q } = await findQuery.validate(getQuery(event));
  return find((await services()).database, q);
});
