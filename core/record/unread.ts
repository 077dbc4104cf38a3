import type { PathTree } from './paths';
import { isRecord, isRecordList, type RecordSnapshot } from './snapshot';

/** Dotted paths of a tree that a record was not read with: what is blank was read. */
export function unreadPaths({ fields, related }: PathTree, record: RecordSnapshot): string[] {
  const own = [...fields].filter((name) => record.fields[name] === undefined);
  const inner = [...related].flatMap(([name, tree]) => {
    const value = record.fields[name];
    if (value === undefined) return [name];
    const records = value === null ? [] : isRecordList(value) ? value : isRecord(value) ? [value] : [];
    return [...new Set(records.flatMap((each) => unreadPaths(tree, each)))].map((path) => `${name}.${path}`);
  });
  return [...own, ...inner];
}
