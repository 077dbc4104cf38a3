import type { Database } from './db/database';
import { findDeals } from './deals';
import { hiddenTypes } from './people/access';
import type { Caller } from './people/caller';
import { DEAL } from './records/record-index';
import { findDocuments } from './register';

const MOST = 6;

/** Deals and documents for the find field. */
export async function find(database: Database, search: string, caller: Caller) {
  if (search.trim().length < 2) return { deals: [], documents: [] };
  const [documents, deals] = await Promise.all([
    findDocuments(database, search.trim(), caller),
    dealsNamed(database, search, caller),
  ]);
  return { deals, documents };
}

async function dealsNamed(database: Database, search: string, caller: Caller) {
  if (hiddenTypes(caller).includes(DEAL)) return [];
  return findDeals(database, search.trim(), MOST);
}
