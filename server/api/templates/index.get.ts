import { route } from '../../problem';
import { services } from '../../services';
import { listTemplates } from '../../templates';

/** The shelf of templates. */
export default route(async () => {
  const { database } = await services();
  return listTemplates(database);
});
