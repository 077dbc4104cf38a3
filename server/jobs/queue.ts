import type { QueryResult } from 'pg';
import PgBoss from 'pg-boss';
import { sql } from 'drizzle-orm';
import { config } from '../config';
import type { Connection } from '../db/database';

export const FILING = 'filing';
/** PostgreSQL notification channels: a job waits; a document changed (payload: its id). */
export const JOB_CHANNEL = 'lumbix_job';
export const DOCUMENT_CHANNEL = 'lumbix_document';

/** The job queue of a process. */
export interface Queue {
  boss: PgBoss;
  /** Asks for a document to be filed, as part of the caller's transaction: no document without its job. */
  enqueueFiling(connection: Connection, documentId: string): Promise<void>;
  close(): Promise<void>;
}

/** Opens the queue; `work` also runs its maintenance, which one kind of process does. */
export async function openQueue(purpose: 'send' | 'work' = 'send'): Promise<Queue> {
  const boss = new PgBoss({
    connectionString: config.databaseUrl,
    max: 4,
    supervise: purpose === 'work',
    schedule: false,
  });
  boss.on('error', (problem) => process.stderr.write(`Job queue: ${problem.message}\n`));
  await boss.start();
  await boss.createQueue(FILING, {
    name: FILING,
    policy: 'standard',
    retryLimit: 4,
    retryDelay: 1,
    retryBackoff: true,
    expireInSeconds: 120,
  });
  return {
    boss,
    async enqueueFiling(connection, documentId) {
      const executeSql = async (text: string, values: unknown[]) =>
        (await connection.execute(withValues(text, values))) as QueryResult;
      await boss.send(FILING, { documentId }, { db: { executeSql } });
      await connection.execute(sql`select pg_notify(${JOB_CHANNEL}, ${documentId})`);
    },
    close: () => boss.stop({ graceful: true, timeout: 5_000 }),
  };
}

/** A statement with `$1` places as one of Drizzle's, so that it runs in Drizzle's transaction. */
function withValues(text: string, values: unknown[]) {
  const pieces = text.split(/\$(\d+)/);
  return sql.join(
    pieces.map((piece, index) => (index % 2 === 0 ? sql.raw(piece) : sql`${sql.param(values[Number(piece) - 1])}`)),
  );
}
