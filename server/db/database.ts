import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import { config } from '../config';
import * as schema from './schema';

export type Database = NodePgDatabase<typeof schema>;
/** The database, or a transaction on it. */
export type Connection = Database | Parameters<Parameters<Database['transaction']>[0]>[0];

let opened: { pool: pg.Pool; database: Database } | undefined;

/** The process's one pool of connections. A lost connection is replaced at the next query. */
export function openDatabase(): { pool: pg.Pool; database: Database } {
  if (!opened) {
    const pool = new pg.Pool({ connectionString: config.databaseUrl, max: 10, connectionTimeoutMillis: 5_000 });
    pool.on('error', () => undefined);
    opened = { pool, database: drizzle(pool, { schema }) };
  }
  return opened;
}

/** Closes the pool, if it was opened. */
export async function closeDatabase(): Promise<void> {
  await opened?.pool.end();
  opened = undefined;
}
