import type { QueryResult } from 'pg';
import PgBoss from 'pg-boss';
import { sql } from 'drizzle-orm';
import { config } from '../config';
import type { Connection } from '../db/database';
import { log, withoutData } from '../log';

export const FILING = 'filing';
/** Brings the index of records up to date. */
export const INDEX = 'record-index';
/** PostgreSQL notification channels: a job waits; a document changed (payload: its id). */
export const JOB_CHANNEL = 'lumbix_job';
export const DOCUMENT_CHANNEL = 'lumbix_document';

/** The job queue of a process. */
export interface Queue {
  boss: PgBoss;
  /**
   * Has a document taken through its steps, now or not before a moment, as part of the caller's transaction: no document without its
   * job. A job that finds nothing to do ends. `isLong`: its steps take minutes.
   */
  enqueue(connection: Connection, documentId: string, when?: { notBefore?: Date; isLong?: boolean }): Promise<void>;
  /** Has the index of records brought up to date, once however many ask for it within a few seconds. */
  enqueueIndex(): Promise<void>;
  close(): Promise<void>;
}

/** How often in seconds the changes of records are asked for. */
export const INDEX_EVERY = 3;
/** After so many seconds a job that takes minutes is taken up by another worker. */
const LONG_EXPIRES = 600;

/** Opens the queue; `work` also runs its maintenance, which one kind of process does. */
export async function openQueue(purpose: 'send' | 'work' = 'send'): Promise<Queue> {
  const boss = new PgBoss({
    connectionString: config.databaseUrl,
    max: 4,
    supervise: purpose === 'work',
    maintenanceIntervalSeconds: Math.ceil(config.jobExpiry / 3),
    schedule: false,
  });
  boss.on('error', (problem) => log.warn(withoutData(problem), 'The job queue did not answer.'));
  await boss.start();
  // Waiting for what passes is a step's own matter; these are for workers and databases that fall over.
  const settings = {
    name: FILING,
    policy: 'standard' as const,
    retryLimit: 1_000_000,
    retryDelay: 1,
    retryBackoff: true,
    expireInSeconds: config.jobExpiry,
  };
  await boss.createQueue(FILING, settings);
  await boss.updateQueue(FILING, settings);
  await boss.createQueue(INDEX, { name: INDEX, policy: 'short', retryLimit: 0, expireInSeconds: LONG_EXPIRES });
  return {
    boss,
    async enqueue(connection, documentId, { notBefore, isLong } = {}) {
      const executeSql = async (text: string, values: unknown[]) =>
        (await connection.execute(withValues(text, values))) as QueryResult;
      await boss.send(
        FILING,
        { documentId },
        {
          db: { executeSql },
          ...(notBefore && { startAfter: notBefore }),
          ...(isLong && { expireInSeconds: LONG_EXPIRES }),
        },
      );
      if (!notBefore) await connection.execute(sql`select pg_notify(${JOB_CHANNEL}, ${documentId})`);
    },
    async enqueueIndex() {
      await boss.send(INDEX, {}, { singletonKey: INDEX, singletonSeconds: INDEX_EVERY });
    },
    close: () => boss.stop({ graceful: true, timeout: 2_000 }),
  };
}

/** A statement with `$1` places as one of Drizzle's, so that it runs in Drizzle's transaction. */
function withValues(text: string, values: unknown[]) {
  const pieces = text.split(/\$(\d+)/);
  return sql.join(
    pieces.map((piece, index) => (index % 2 === 0 ? sql.raw(piece) : sql`${sql.param(values[Number(piece) - 1])}`)),
  );
}
