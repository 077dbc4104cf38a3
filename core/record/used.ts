import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';

/** The values that a document printed or chose by: path → value in canonical text. */
export type UsedValues = Readonly<Record<string, string>>;

/** One value that differs between two readings; `null` where a reading did not have the path at all. */
export interface UsedChange {
  path: string;
  before: string | null;
  after: string | null;
}

/** SHA-256 over the used values, whatever the order they were read in. */
export function usedDigest(used: UsedValues): string {
  const entries = Object.entries(used).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0));
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify(entries))));
}

/** What changed from one reading to another, in path order. Empty exactly when the digests agree. */
export function usedChanges(before: UsedValues, after: UsedValues): UsedChange[] {
  const paths = [...new Set([...Object.keys(before), ...Object.keys(after)])].sort();
  return paths
    .filter((path) => before[path] !== after[path])
    .map((path) => ({ path, before: before[path] ?? null, after: after[path] ?? null }));
}
