import { getRouterParams, setResponseHeaders } from 'h3';
import { FILE_POLICY } from '../../../edge/page-policy';
import { route } from '../../../problem';
import { readFile } from '../../../register';
import { documentId } from '../../../requests';
import { services } from '../../../services';

/** The filed PDF itself. It never changes, so browsers may keep it for good. */
export default route(async (event) => {
  const { id } = await documentId.validate(getRouterParams(event));
  const { bytes, fileName, sha256 } = await readFile((await services()).database, id);
  setResponseHeaders(event, {
    'Content-Type': 'application/pdf',
    'Content-Security-Policy': FILE_POLICY,
    'Content-Disposition': `inline; filename*=UTF-8''${encodeURIComponent(fileName)}`,
    'Cache-Control': 'private, max-age=31536000, immutable',
    ETag: `"${sha256}"`,
  });
  return bytes;
});
