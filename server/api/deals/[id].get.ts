import { getRouterParam } from 'h3';
import { wholeDeal } from '../../deals';
import { route } from '../../problem';

export default route(async (event) => wholeDeal(decodeURIComponent(getRouterParam(event, 'id') ?? '')));
