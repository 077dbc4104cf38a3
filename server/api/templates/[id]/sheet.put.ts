import { getRouterParam, readBody } from 'h3';
import { route } from '../../../problem';
import { sheetBody } from '../../../requests';
import { services } from '../../../services';
import { publishSheet, type SheetChange } from '../../../templates';

export default route(async (event) => {
  const { database } = await services();
  const change = await sheetBody.validate(await readBody(event));
  return publishSheet(database, getRouterParam(event, 'id') ?? '', change as SheetChange);
});
