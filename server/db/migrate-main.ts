/**
 * Brings the database up to date, and puts in what Lumbix ships with and what the start command says. Run by the start command and
 * the tests. `LUMBIX_DEMO=yes` loads the accounts of the demo. Where nobody can let people in yet, it writes a first
 * administrator's one-time link.
 */
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { join } from 'node:path';
import { demoPeople } from '../../demo/people';
import { shipped } from '../../demo/shipped';
import { config } from '../config';
import { keepStartConnection } from '../crm/connection';
import { openQueue } from '../jobs/queue';
import { tidyUp } from '../people/tidy-up';
import { firstLink } from '../people/invitations';
import { keepDemoPeople } from '../people/demo';
import { Press } from '../press/press';
import { sealAnew } from '../secrets/renew';
import { closeDatabase, openDatabase } from './database';
import { loadShipped } from './shipped';

const { database } = openDatabase();
await migrate(database, { migrationsFolder: join(config.buildFolder, 'migrations') });
const press = new Press(1);
const link = await database.transaction(async (transaction) => {
  await loadShipped({ database: transaction, press }, shipped);
  await keepDemoPeople(transaction, config.isDemo ? demoPeople : []);
  await sealAnew(transaction);
  await keepStartConnection(transaction);
  await tidyUp(transaction);
  return firstLink(transaction);
});
await press.close();
const queue = await openQueue();
await queue.close();
await closeDatabase();
if (link) process.stdout.write(`${link}\n`);
