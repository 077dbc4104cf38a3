import { changeField } from '../change';
import { readJson } from '../edge/body';
import { accepted, route } from '../problem';
import { changeBody, type FieldChange } from '../requests';

/** Writes one field of a record of the CRM, if nobody changed it since. */
export default route(async (event) => {
  await changeField(accepted<FieldChange>(changeBody, await readJson(event)));
  return { changed: true };
});
