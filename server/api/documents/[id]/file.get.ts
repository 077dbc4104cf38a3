import { getRouterParams, setResponseHeaders } from 'h3';
import { pdfHeaders } from '../../../edge/file-headers';
import { route } from '../../../problem';
import { readFile } from '../../../register';
import { documentId } from '../../../requests';
import { services } from '../../../services';

/** The filed PDF itself. It never changes, so browsers may keep it for good. */
export default route(async (event) => {
  const { id } = await documentId.validate(getRouterParams(event));
  const { bytes, fileName, sha256 } = await readFile((await services()).database, id);
  setResponseHeaders(event, {
    ...pdfHeaders(fileName),
    'Cache-Control': 'private, max-age=31536000, immutable',
    ETag: `"${sha256}"`,
  });
  return bytes;
});
