import { getQuery } from 'h3';
import { route } from '../../problem';
import { proofDocument } from '../../proof';
import { proofQuery } from '../../requests';
import { services } from '../../services';

/** A proof: the pages, findings and figures of a document that is not filed. */
export default route(async (event) => {
  const { deal, template, ...forced } = await proofQuery.validate(getQuery(event));
  return proofDocument(await services(), deal, template, forced);
});
