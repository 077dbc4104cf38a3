import pino from 'pino';

/**
 * What a process tells those who keep it running: a line of JSON each, without customers' data. A log is no place to look up what
 * a record says.
 */
export const log = pino({
  level: process.env.LUMBIX_LOG ?? 'info',
  base: { pid: process.pid },
  timestamp: pino.stdTimeFunctions.isoTime,
});

/** Errors of the engine itself, whose messages name code and no data. */
const OF_CODE = [TypeError, RangeError, ReferenceError];
/** Sentences of libraries that hold no data either. */
const OF_CONNECTIONS = /^(timeout exceeded when trying to connect|Connection terminated)/;
/** What a database tells of an error besides its sentence, which may quote a value (PostgreSQL, 55.8). */
const OF_DATABASE = ['code', 'severity', 'table', 'constraint', 'routine'] as const;

/**
 * An error as it may stand in a log: what it is and where it came from. Its message may quote a record, so only that of faults in
 * the code is kept.
 */
export function withoutData(problem: unknown): object {
  if (!(problem instanceof Error)) return { error: typeof problem };
  const told = problem as Error & Partial<Record<(typeof OF_DATABASE)[number], unknown>>;
  const stack = (problem.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  return {
    error: problem.name,
    ...((OF_CODE.some((kind) => problem instanceof kind) || OF_CONNECTIONS.test(problem.message)) && {
      message: problem.message,
    }),
    ...Object.fromEntries(OF_DATABASE.flatMap((name) => (typeof told[name] === 'string' ? [[name, told[name]]] : []))),
    stack: stack.slice(0, 12).map((line) => line.trim()),
    ...(problem.cause instanceof Error && { cause: withoutData(problem.cause) }),
  };
}
