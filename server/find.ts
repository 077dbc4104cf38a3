import { CrmError } from './crm/client';
import type { Database } from './db/database';
import { listDeals } from './deals';
import { findDocuments } from './register';

const MOST = 6;

/** Deals and documents for the find field. While the CRM is away, documents alone. */
export async function find(database: Database, search: string) {
  if (search.trim().length < 2) return { deals: [], documents: [], crmAway: false };
  const [documents, found] = await Promise.all([
    findDocuments(database, search.trim()),
    listDeals(database, { view: 'all', search, sort: 'name', descending: false, skip: 0, top: MOST }).catch(
      (problem: unknown) => {
        if (problem instanceof CrmError) return undefined;
        throw problem;
      },
    ),
  ]);
  const deals = (found?.deals ?? []).map(({ deal }) => ({
    id: deal.id,
    name: String(deal.fields.name),
    account: accountOf(deal.fields.account),
  }));
  return { deals, documents, crmAway: found === undefined };
}

function accountOf(account: unknown): string {
  return String((account as { fields?: { name?: unknown } } | null)?.fields?.name ?? '');
}
