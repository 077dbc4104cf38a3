import { getRouterParam } from 'h3';
import { wholeDeal } from '../../deals';
import { route } from '../../problem';

/** One deal with its account, contact and line items, and the schema to show them by. */
export default route(async (event) => wholeDeal(decodeURIComponent(getRouterParam(event, 'id') ?? '')));
