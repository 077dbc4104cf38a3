/** The process that files documents. Any number of them may run. */
import { inArray } from 'drizzle-orm';
import { closeDatabase, openDatabase } from '../db/database';
import { documents } from '../db/schema';
import { advance } from '../filing/advance';
import { Press } from '../press/press';
import { listen } from './listen';
import { FILING, JOB_CHANNEL, openQueue } from './queue';

/** How often unfinished documents are looked for, besides the jobs: after a kill, or while the CRM was away. */
const SWEEP_EVERY = 10_000;

const { pool, database } = openDatabase();
const press = new Press(2);
const queue = await openQueue('work');
const services = { pool, database, press };

const workerId = await queue.boss.work<{ documentId: string }>(
  FILING,
  { pollingIntervalSeconds: 2, batchSize: 1 },
  async ([job]) => {
    if (job) await advance(services, job.data.documentId);
  },
);
// A notification makes the worker look at once; the poll is for those that were missed.
const listener = listen(JOB_CHANNEL, () => queue.boss.notifyWorker(workerId));

/** Goes on with every document that is under way and that no other process holds. */
async function sweep(): Promise<void> {
  try {
    const unfinished = await database
      .select({ id: documents.id })
      .from(documents)
      .where(inArray(documents.state, ['preparing', 'rendered', 'attached']));
    for (const { id } of unfinished) await advance(services, id).catch((problem: unknown) => report(problem));
  } catch (problem) {
    report(problem);
  }
}

function report(problem: unknown): void {
  process.stderr.write(`Filing: ${problem instanceof Error ? problem.message : String(problem)}\n`);
}

await sweep();
const sweeper = setInterval(() => void sweep(), SWEEP_EVERY);
process.stdout.write('The filing worker is ready.\n');

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    clearInterval(sweeper);
    void (async () => {
      await listener.close();
      await queue.close();
      await press.close();
      await closeDatabase();
      process.exit(0);
    })();
  });
}
