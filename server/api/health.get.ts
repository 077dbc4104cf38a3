import { sql } from 'drizzle-orm';
import { route } from '../problem';
import { services } from '../services';

/** Answers once Lumbix can work: its database answers and its press is open. */
export default route(async () => {
  const { database } = await services();
  await database.execute(sql`select 1`);
  return { ready: true };
});
