/**
 * Writes the history of the demo, where nothing was filed yet or it was not written to its end. Run by the start command while the CRM
 * answers, and before a worker does.
 */
import { availableParallelism } from 'node:os';
import { history } from '../../demo/history';
import { closeDatabase, openDatabase } from '../db/database';
import { openQueue } from '../jobs/queue';
import { Press } from '../press/press';
import { isToBeWritten, writeHistory } from './history';

const { database } = openDatabase();
if (await isToBeWritten(database, history)) {
  const queue = await openQueue();
  const press = new Press(Math.max(2, availableParallelism()));
  await writeHistory({ database, queue, press }, history, new Date());
  press.close();
  await queue.close();
}
await closeDatabase();
