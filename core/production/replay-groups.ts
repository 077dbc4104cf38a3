import { Decimal } from '../money/decimal';

/** One thing that came out otherwise. */
export interface OutcomeChange {
  of: 'figure' | 'section' | 'finding' | 'pages';
  /** What people call it. */
  what: string;
  before?: string;
  after?: string;
  /** How far an amount moved, as decimal text without its sign. */
  by?: string;
}

/** Documents in which the same thing came out otherwise. */
export interface ReplayGroup<Document> {
  of: OutcomeChange['of'];
  what: string;
  /** The farthest that an amount moved. */
  most?: string;
  documents: readonly { document: Document; before?: string; after?: string }[];
}

/** Changes of many documents, by what they are of; what is in most documents first. */
export function groupedChanges<Document>(
  all: readonly { document: Document; changes: readonly OutcomeChange[] }[],
): ReplayGroup<Document>[] {
  const groups = new Map<string, ReplayGroup<Document>>();
  for (const { document, changes } of all) {
    for (const { of, what, before, after, by } of changes) {
      const key = `${of} ${what} ${of === 'section' || of === 'finding' ? after : ''}`;
      const known = groups.get(key) ?? { of, what, documents: [] };
      const most = farther(known.most, by);
      groups.set(key, {
        ...known,
        ...(most !== undefined && { most }),
        documents: [...known.documents, { document, before, after }],
      });
    }
  }
  return [...groups.values()].sort((one, other) => other.documents.length - one.documents.length);
}

function farther(one: string | undefined, other: string | undefined): string | undefined {
  if (one === undefined || other === undefined) return one ?? other;
  return Decimal.of(one).comparedTo(Decimal.of(other)) >= 0 ? one : other;
}
