import { getRouterParam } from 'h3';
import { readJson } from '../../../edge/body';
import { accepted, route } from '../../../problem';
import { sheetBody, type SheetChange } from '../../../requests';
import { services } from '../../../services';
import { publishSheet } from '../../../templates';

/** Publishes a template’s figure sheet as its next version. */
export default route(async (event) => {
  const change = accepted<SheetChange>(sheetBody, await readJson(event));
  return publishSheet(await services(), getRouterParam(event, 'id') ?? '', change);
});
