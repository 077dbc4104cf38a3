import { getQuery, setResponseHeaders } from 'h3';
import { FILE_POLICY } from '../../edge/page-policy';
import { route } from '../../problem';
import { trialPdf } from '../../proof';
import { proofQuery } from '../../requests';
import { services } from '../../services';

/** A PDF to look at, marked as a trial on every page. */
export default route(async (event) => {
  const { deal, template, ...forced } = await proofQuery.validate(getQuery(event));
  const { bytes, fileName } = await trialPdf(await services(), deal, template, forced);
  setResponseHeaders(event, {
    'Content-Type': 'application/pdf',
    'Content-Security-Policy': FILE_POLICY,
    'Content-Disposition': `inline; filename*=UTF-8''${encodeURIComponent(fileName)}`,
  });
  return bytes;
});
