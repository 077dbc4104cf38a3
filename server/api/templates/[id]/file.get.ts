import { getRouterParam, setResponseHeaders } from 'h3';
import { fileHeaders } from '../../../edge/file-headers';
import { route } from '../../../problem';
import { services } from '../../../services';
import { takeOutTemplate } from '../../../template-file';

/** A template as a file to keep, change and put in again. */
export default route(async (event) => {
  const { database } = await services();
  const { name, body } = await takeOutTemplate(database, getRouterParam(event, 'id') ?? '');
  setResponseHeaders(event, fileHeaders('application/json; charset=utf-8', name, 'attachment'));
  return body;
});
