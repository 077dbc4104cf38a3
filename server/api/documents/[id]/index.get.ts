import { getRouterParams } from 'h3';
import { route } from '../../../problem';
import { readDocument } from '../../../register';
import { documentId } from '../../../requests';
import { services } from '../../../services';

/** One document of the register with its events and workings. */
export default route(async (event) => {
  const { id } = await documentId.validate(getRouterParams(event));
  return readDocument((await services()).database, id);
});
