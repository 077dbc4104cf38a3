import { readBody } from 'h3';
import { changeField } from '../change';
import { route } from '../problem';
import { changeBody } from '../requests';

/** Writes one field of a record of the CRM, if nobody changed it since. */
export default route(async (event) => {
  await changeField(await changeBody.validate(await readBody(event)));
  return { changed: true };
});
