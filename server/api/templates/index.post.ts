import { getQuery } from 'h3';
import { readBytes } from '../../edge/body';
import { accepted, route } from '../../problem';
import { reasonQuery } from '../../requests';
import { services } from '../../services';
import { LARGEST_TEMPLATE, putInTemplate } from '../../template-file';

/** Puts a template in from its file, or says everything that is wrong with it. */
export default route(async (event) => {
  const { reason } = accepted<{ reason?: string }>(reasonQuery, getQuery(event));
  return putInTemplate(await services(), await readBytes(event, LARGEST_TEMPLATE), reason);
});
