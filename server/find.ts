import { CrmError } from './crm/client';
import type { Database } from './db/database';
import { listDeals } from './deals';
import { hiddenTypes } from './people/access';
import type { Caller } from './people/caller';
import { findDocuments } from './register';

const MOST = 6;

/** Deals and documents for the find field. While the CRM is away, documents alone. */
export async function find(database: Database, search: string, caller: Caller) {
  if (search.trim().length < 2) return { deals: [], documents: [], crmAway: false };
  const [documents, found] = await Promise.all([
    findDocuments(database, search.trim(), caller),
    dealsNamed(database, search, caller),
  ]);
  const deals = (found?.deals ?? []).map(({ deal }) => ({
    id: deal.id,
    name: String(deal.fields.name),
    account: accountOf(deal.fields.account),
  }));
  return { deals, documents, crmAway: found === undefined };
}

/** Undefined while the CRM is away. */
async function dealsNamed(database: Database, search: string, caller: Caller) {
  if (hiddenTypes(caller).includes('Deal')) return { deals: [] };
  const query = { view: 'all', search, sort: 'name', descending: false, skip: 0, top: MOST } as const;
  return listDeals(database, query, caller).catch((problem: unknown) => {
    if (problem instanceof CrmError) return undefined;
    throw problem;
  });
}

function accountOf(account: unknown): string {
  return String((account as { fields?: { name?: unknown } } | null)?.fields?.name ?? '');
}
