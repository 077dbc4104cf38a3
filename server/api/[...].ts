import { Problem, route } from '../problem';

/** What no route answers. */
export default route(() => {
  throw new Problem(404, 'There is nothing at this address', 'Look how it is written. Nothing was changed.');
});
