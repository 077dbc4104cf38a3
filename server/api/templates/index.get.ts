import { asc } from 'drizzle-orm';
import { templates } from '../../db/schema';
import { route } from '../../problem';
import { services } from '../../services';

export default route(async () => {
  const { database } = await services();
  return database.select().from(templates).orderBy(asc(templates.name));
});
