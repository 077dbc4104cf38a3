import { setResponseStatus } from 'h3';
import { readJson } from '../../edge/body';
import { beginFiling, type FilingRequest } from '../../filing/begin';
import { accepted, route } from '../../problem';
import { filingBody } from '../../requests';
import { services } from '../../services';

/** Begins to file a document; answers once its number is taken and its job is kept. */
export default route(async (event) => {
  const request = accepted<FilingRequest>(filingBody, await readJson(event));
  const begun = await beginFiling(await services(), request);
  setResponseStatus(event, 202);
  return begun;
});
