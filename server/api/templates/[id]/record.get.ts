import { getQuery, getRouterParam } from 'h3';
import { currentTemplate, readForFigures } from '../../../filing/template';
import { route } from '../../../problem';
import { recordQuery } from '../../../requests';
import { services } from '../../../services';

export default route(async (event) => {
  const { deal } = await recordQuery.validate(getQuery(event));
  const { database } = await services();
  return readForFigures(await currentTemplate(database, getRouterParam(event, 'id') ?? ''), deal);
});
