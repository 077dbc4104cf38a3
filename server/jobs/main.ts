/** A process that takes documents through their steps. Any number of them may run, on any number of machines. */
import { availableParallelism } from 'node:os';
import { setTimeout as pause } from 'node:timers/promises';
import { isDatabaseAway } from '../db/away';
import { closeDatabase, openDatabase } from '../db/database';
import { log, withoutData } from '../log';
import { Press } from '../press/press';
import { advance } from '../productions/engine';
import { listen } from './listen';
import { refreshIndex } from '../records/record-index';
import { tidyUp } from '../tidy-up';
import { FILING, JOB_CHANNEL, openQueue, REGULAR, type Queue, type Regular } from './queue';

/** As many documents at once as the press has processes. */
const AT_ONCE = Math.max(2, availableParallelism());

const TRY_AGAIN_AFTER = 1_000;

/** For so many milliseconds an ending process waits for others to answer. */
const LAST_WORDS = 3_000;

const { database } = openDatabase();
// What people wait for at their screens goes first, on this machine too.
const press = new Press(AT_ONCE, 7);
const queue = await openedQueue();
const services = { database, press, queue };

/** The queue, as soon as the database is there: one that was just stopped, or is about to start, is no reason to end. */
async function openedQueue(): Promise<Queue> {
  for (;;)
    try {
      return await openQueue('work');
    } catch (problem) {
      if (!isDatabaseAway(problem)) throw problem;
      log.warn(withoutData(problem), 'The database can’t be reached.');
      await pause(TRY_AGAIN_AFTER);
    }
}

const options = { pollingIntervalSeconds: 1, batchSize: 1, includeMetadata: true as const };
const workers: string[] = [];
for (let each = 0; each < AT_ONCE; each++) {
  const id = await queue.boss.work<{ documentId: string }>(FILING, options, async ([job]) => {
    // The queue hands out a job again once its process must be gone.
    if (job) await advance(services, job.data.documentId, job.retryCount > 0);
    // The next one is looked for at once; where there is none, after the pause.
    queue.boss.notifyWorker(workers[each]!);
  });
  workers.push(id);
}
// A notification makes the workers look at once; the pause is for what waits, and for those that were missed.
const listener = listen(JOB_CHANNEL, () => {
  for (const id of workers) queue.boss.notifyWorker(id);
});
const regular: Readonly<Record<Regular, () => Promise<void>>> = {
  'record-index': () => refreshIndex(database),
  'tidy-up': () => tidyUp(database),
};
const clocks = (Object.keys(regular) as Regular[]).map((name) => {
  void queue.boss.work(name, { pollingIntervalSeconds: 1 }, regular[name]);
  const ask = () =>
    void queue
      .enqueueRegular(name)
      .catch((problem: unknown) => log.warn(withoutData(problem), 'The job queue did not answer.'));
  ask();
  return setInterval(ask, REGULAR[name] * 1_000);
});
log.info('The filing worker is ready.');

// The queue does not wait for what it writes down at a job's end: while the database is away, such a job is taken up again later.
process.on('unhandledRejection', (problem) => {
  if (!isDatabaseAway(problem)) throw problem;
  log.warn(withoutData(problem), 'The database can’t be reached.');
});

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    // What is under way is taken up by the next worker: each step can be repeated.
    clocks.forEach(clearInterval);
    press.close();
    setTimeout(() => process.exit(0), LAST_WORDS).unref();
    void (async () => {
      await listener.close();
      await queue.close();
      await closeDatabase();
      process.exit(0);
    })();
  });
}
