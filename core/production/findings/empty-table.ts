import type { Finding } from './finding';

/** A table without rows, in whose place a sentence is printed. `record`: what the record is called by its type. */
export function emptyTable(block: string, label: string, record: string): Finding {
  return {
    id: `empty ${block}`,
    severity: 'warns',
    title: `Nothing in “${label}”`,
    sentence: `The ${record} has no lines for this table, so a sentence is printed in its place.`,
    block,
    values: [],
  };
}
