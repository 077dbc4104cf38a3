import { getQuery, getRouterParam } from 'h3';
import { dealValues } from '../../../deals';
import { route } from '../../../problem';
import { valuesQuery } from '../../../requests';

/** The values of a deal under some paths, for the figure sheet. */
export default route(async (event) => {
  const { paths } = await valuesQuery.validate(getQuery(event));
  return dealValues(decodeURIComponent(getRouterParam(event, 'id') ?? ''), paths.split(','));
});
