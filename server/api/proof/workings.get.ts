import { getQuery } from 'h3';
import { route } from '../../problem';
import { explainProof } from '../../proof';
import { workingsQuery } from '../../requests';
import { services } from '../../services';

/** How one value of a proof came about. */
export default route(async (event) => {
  const { key, id } = await workingsQuery.validate(getQuery(event));
  return explainProof(await services(), key, id);
});
