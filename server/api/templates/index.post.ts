import { getHeader, getQuery, readRawBody } from 'h3';
import { accepted, Problem, route } from '../../problem';
import { reasonQuery } from '../../requests';
import { services } from '../../services';
import { LARGEST_TEMPLATE, putInTemplate } from '../../template-file';

/** Puts a template in from its file, or says everything that is wrong with it. */
export default route(async (event) => {
  if (Number(getHeader(event, 'content-length') ?? 0) > LARGEST_TEMPLATE)
    throw new Problem(413, 'The template was not put in', 'The file is larger than 30 MB, which no template is.');
  const bytes = await readRawBody(event, false);
  return putInTemplate(
    await services(),
    bytes ?? new Uint8Array(),
    accepted<{ reason?: string }>(reasonQuery, getQuery(event)).reason,
  );
});
