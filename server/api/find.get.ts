import { getQuery } from 'h3';
import { find } from '../find';
import { route } from '../problem';
import { findQuery } from '../requests';
import { services } from '../services';

export default route(async (event) => {
  const { q } = await findQuery.validate(getQuery(event));
  return find((await services()).database, q);
});
