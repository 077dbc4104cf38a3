import { getQuery, setResponseHeaders } from 'h3';
import { pdfHeaders } from '../../edge/file-headers';
import { route } from '../../problem';
import { trialPdf } from '../../proof';
import { proofQuery } from '../../requests';
import { services } from '../../services';

/** A PDF to look at, marked as a trial on every page. */
export default route(async (event) => {
  const { deal, template, ...forced } = await proofQuery.validate(getQuery(event));
  const { bytes, fileName } = await trialPdf(await services(), deal, template, forced);
  setResponseHeaders(event, pdfHeaders(fileName));
  return bytes;
});
