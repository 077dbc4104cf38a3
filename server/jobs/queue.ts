import type { QueryResult } from 'pg';
import PgBoss from 'pg-boss';
import { sql } from 'drizzle-orm';
import { config } from '../config';
import type { Connection } from '../db/database';
import { log, withoutData } from '../log';

export const FILING = 'filing';
/** What is done again and again, once for all workers, with its seconds between: reading the changes of records, and tidying up. */
export const REGULAR = { 'record-index': 3, 'tidy-up': 3_600 } as const;
export type Regular = keyof typeof REGULAR;
/** For how many seconds a job that is done is kept, at least the longest of them. */
const KEPT = 3_600;
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
  /** Asks for what is done regularly, which is done once however many ask for it within its time. */
  enqueueRegular(name: Regular): Promise<void>;
  close(): Promise<void>;
}

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
    archiveCompletedAfterSeconds: KEPT,
    deleteAfterHours: 24,
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
  for (const name of Object.keys(REGULAR))
    await boss.createQueue(name, { name, policy: 'short', retryLimit: 0, expireInSeconds: LONG_EXPIRES });
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
    async enqueueRegular(name) {
      await boss.send(name, {}, { singletonKey: name, singletonSeconds: REGULAR[name] });
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
