import type { Database } from './db/database';
import type { Caller } from './people/caller';
import { recordTypes, findRecords } from './records/record-list';
import { findDocuments } from './register';

const MOST = 6;

/** Records and documents for the find field. */
export async function find(database: Database, search: string, caller: Caller) {
  if (search.trim().length < 2) return { records: [], documents: [] };
  const [documents, records] = await Promise.all([
    findDocuments(database, search.trim(), caller),
    recordsNamed(database, search, caller),
  ]);
  return { records, documents };
}

async function recordsNamed(database: Database, search: string, caller: Caller) {
  const types = await recordTypes(caller);
  const found = await findRecords(
    database,
    types.map(({ name }) => name),
    search.trim(),
    MOST,
  );
  return found.map((record) => ({ ...record, called: types.find(({ name }) => name === record.type)!.label }));
}
