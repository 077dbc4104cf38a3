/** Brings the database up to date and puts the shipped templates in. Run by the start command and the tests. */
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { join } from 'node:path';
import { shipped } from '../../demo/shipped';
import { config } from '../config';
import { openQueue } from '../jobs/queue';
import { Press } from '../press/press';
import { closeDatabase, openDatabase } from './database';
import { loadShipped } from './shipped';

const { database } = openDatabase();
await migrate(database, { migrationsFolder: join(config.buildFolder, 'migrations') });
const press = new Press(1);
await database.transaction((transaction) => loadShipped({ database: transaction, press }, shipped));
await press.close();
const queue = await openQueue();
await queue.close();
await closeDatabase();
