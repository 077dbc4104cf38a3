/** Connections that broke off or are refused (PostgreSQL, appendix A, classes 08 and 57P; the system's own for sockets). */
const AWAY = /^(08\w{3}|57P0[1-5]|ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|ENOTFOUND)$/;

/** Whether something failed since the database is away: stopped, starting, or not to be reached. That passes. */
export function isDatabaseAway(thrown: unknown): boolean {
  if (!(thrown instanceof Error)) return false;
  const { code } = thrown as { code?: unknown };
  if (typeof code === 'string' && AWAY.test(code)) return true;
  if (/^(Connection terminated|timeout exceeded when trying to connect)/.test(thrown.message)) return true;
  return isDatabaseAway(thrown.cause);
}
