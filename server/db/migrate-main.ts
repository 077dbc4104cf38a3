/** Brings the database up to date and puts the shipped templates in. Run by the start command and the tests. */
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { join } from 'node:path';
import { houseStyles, templates } from '../../demo/shipped';
import { config } from '../config';
import { openQueue } from '../jobs/queue';
import { closeDatabase, openDatabase } from './database';
import { loadShipped } from './shipped';

const { database } = openDatabase();
await migrate(database, { migrationsFolder: join(config.buildFolder, 'migrations') });
await database.transaction((transaction) => loadShipped(transaction, houseStyles, templates));
const queue = await openQueue();
await queue.close();
await closeDatabase();
