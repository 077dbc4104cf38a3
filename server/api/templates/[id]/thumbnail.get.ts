import { getRouterParam, setResponseHeaders } from 'h3';
import { route } from '../../../problem';
import { services } from '../../../services';
import { templateThumbnail } from '../../../thumbnail';

/** The first page of a template, small, for the shelf. */
export default route(async (event) => {
  const { png, version } = await templateThumbnail(await services(), getRouterParam(event, 'id') ?? '');
  setResponseHeaders(event, {
    'Content-Type': 'image/png',
    'Cache-Control': 'private, max-age=300',
    ETag: `"${version}"`,
  });
  return png;
});
