import pg from 'pg';
import { config } from '../config';

/** Longest wait before a lost connection is tried again. */
const RETRY_AFTER = 1_000;

/**
 * Listens to a PostgreSQL notification channel and reconnects when the connection is lost. After a reconnection the
 * listener is told with an empty payload, since notifications may have been missed.
 */
export function listen(channel: string, onNotification: (payload: string) => void): { close(): Promise<void> } {
  let closed = false;
  let client: pg.Client | undefined;

  const connect = async (again: boolean) => {
    if (closed) return;
    const next = new pg.Client({ connectionString: config.databaseUrl });
    client = next;
    let lost = false;
    const reconnect = () => {
      if (lost || closed) return;
      lost = true;
      setTimeout(() => void connect(true), RETRY_AFTER).unref();
    };
    next.on('error', reconnect);
    next.on('end', reconnect);
    next.on('notification', ({ payload }) => onNotification(payload ?? ''));
    try {
      await next.connect();
      await next.query(`listen ${channel}`);
      if (again) onNotification('');
    } catch {
      reconnect();
    }
  };
  void connect(false);
  return {
    async close() {
      closed = true;
      await client?.end();
    },
  };
}
