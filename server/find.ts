import { searchFor } from '../core/words/search';
import type { Database } from './db/database';
import { templates } from './db/schema';
import { seesKind } from './people/access';
import type { Caller } from './people/caller';
import { recordTypes, findRecords } from './records/record-list';
import { findDocuments } from './register';

const MOST = 6;
/** Of each type of records after the first, so that there is room for all. */
const FEWER = 3;

/** Records, documents and templates for the find field. */
export async function find(database: Database, search: string, caller: Caller) {
  if (search.trim().length < 2) return { records: [], documents: [], templates: [] };
  const [documents, records, named] = await Promise.all([
    findDocuments(database, search.trim(), caller),
    recordsNamed(database, search, caller),
    templatesNamed(database, search, caller),
  ]);
  return { records, documents, templates: named };
}

/** There are few templates, so that all are read. */
async function templatesNamed(database: Database, search: string, caller: Caller) {
  const all = await database.select({ id: templates.id, name: templates.name, kind: templates.kind }).from(templates);
  const isFound = searchFor(search);
  return all.filter(({ name, kind }) => seesKind(caller, kind) && isFound([name, kind])).slice(0, MOST);
}

async function recordsNamed(database: Database, search: string, caller: Caller) {
  const types = await recordTypes(caller);
  const found = await Promise.all(
    types.map(async ({ name, label }, at) => {
      const records = await findRecords(database, name, search.trim(), at === 0 ? MOST : FEWER);
      return records.map((record) => ({ ...record, called: label }));
    }),
  );
  return found.flat();
}
