import { EventEmitter } from 'node:events';
import { openDatabase, type Database } from './db/database';
import { listen } from './jobs/listen';
import { DOCUMENT_CHANNEL, openQueue, type Queue } from './jobs/queue';
import { Press } from './press/press';

/** So that a slow task does not hold up all others. Each stays with the document that it proofs, and keeps its cache. */
const PROCESSES = 2;
/** Answering goes before setting, on a machine with few cores. */
const NICE = 2;

/** What the web process's routes work with. */
export interface Services {
  database: Database;
  queue: Queue;
  press: Press;
  /** Tells of documents that changed: event `document` with the id, empty if any may have. */
  changes: EventEmitter;
}

let opened: Promise<Services> | undefined;

/** The web process's services, opened at the first request that needs them; a failed opening is tried again. */
export function services(): Promise<Services> {
  opened ??= open().catch((problem: unknown) => {
    opened = undefined;
    throw problem;
  });
  return opened;
}

async function open(): Promise<Services> {
  const { database } = openDatabase();
  const queue = await openQueue();
  const changes = new EventEmitter();
  changes.setMaxListeners(0);
  listen(DOCUMENT_CHANNEL, (id) => changes.emit('document', id));
  return { database, queue, press: new Press(PROCESSES, NICE), changes };
}
