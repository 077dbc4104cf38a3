import { getRouterParam } from 'h3';
import { route } from '../../../problem';
import { services } from '../../../services';
import { templateWithSchema } from '../../../templates';

/** A template with the schema of its records, for the figure sheet. */
export default route(async (event) => {
  const { database } = await services();
  return templateWithSchema(database, getRouterParam(event, 'id') ?? '');
});
