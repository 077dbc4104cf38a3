/**
 * Brings the database up to date, and puts in what Lumbix ships with and what the start command says. Run by the start command and
 * the tests. `LUMBIX_DEMO=yes` loads the accounts of the demo. Where nobody can let people in yet, it writes a first
 * administrator's one-time link.
 */
import { notInArray, sql } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { join } from 'node:path';
import { demoLayouts } from '../../demo/layouts';
import { demoPeople } from '../../demo/people';
import { shipped } from '../../demo/shipped';
import { config } from '../config';
import { keepDemoPlaces } from '../demo/demo-places';
import { keepStartLayouts } from '../records/layouts';
import { keepStartConnection } from '../records/odata/connection';
import { openQueue, type Queue } from '../jobs/queue';
import { fillDocumentWords } from '../register';
import { tidyUp } from '../tidy-up';
import { firstLink } from '../people/invitations';
import { keepDemoPeople } from '../demo/demo-people';
import { Press } from '../press/press';
import { sealAnew } from '../secrets/renew';
import { closeDatabase, openDatabase, type Database } from './database';
import { documents } from './schema';
import { loadShipped } from './shipped';

const { database } = openDatabase();
const before = await hasSteps(database);
await migrate(database, { migrationsFolder: join(config.buildFolder, 'migrations') });
await fillDocumentWords(database);
const press = new Press(1);
const link = await database.transaction(async (transaction) => {
  await loadShipped({ database: transaction, press }, shipped);
  await keepDemoPeople(transaction, config.isDemo ? demoPeople : []);
  await sealAnew(transaction);
  if (config.isDemo && config.demoStorageUrl) await keepDemoPlaces(transaction, config.demoStorageUrl);
  await keepStartConnection(transaction);
  await keepStartLayouts(transaction, config.isDemo ? demoLayouts : {});
  await tidyUp(transaction);
  return firstLink(transaction);
});
press.close();
const queue = await openQueue();
if (!before) await enqueueUnfinished(database, queue);
await queue.close();
await closeDatabase();
if (link) process.stdout.write(`${link}\n`);

/** Whether the database knew steps before it was brought up to date. */
async function hasSteps(database: Database): Promise<boolean> {
  const { rows } = await database.execute(sql`select to_regclass('public.steps') is not null as known`);
  return (rows[0] as { known: boolean }).known;
}

/** Documents that were on their way before there were steps go on by them. */
async function enqueueUnfinished(database: Database, queue: Queue): Promise<void> {
  const unfinished = await database
    .select({ id: documents.id })
    .from(documents)
    .where(notInArray(documents.state, ['filed', 'failed']));
  for (const { id } of unfinished) await queue.enqueue(database, id);
}
