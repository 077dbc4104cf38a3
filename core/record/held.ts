import { isRecord, isRecordList, type FieldValue, type RecordSnapshot } from './snapshot';

/** A value that records hold, and how many of them hold it. */
export interface HeldValue {
  value: string;
  count: number;
}

/** The texts and choices that records hold under a path, those that most of them hold first. */
export function heldValues(records: readonly RecordSnapshot[], path: readonly string[]): HeldValue[] {
  const counts = new Map<string, number>();
  for (const record of records) {
    for (const value of new Set(valuesUnder(record, path))) counts.set(value, (counts.get(value) ?? 0) + 1);
  }
  return [...counts]
    .map(([value, count]) => ({ value, count }))
    .sort((one, other) => other.count - one.count || one.value.localeCompare(other.value, 'en'));
}

function* valuesUnder(value: FieldValue | undefined, path: readonly string[]): Generator<string> {
  if (value === undefined || value === null || value === '') return;
  if (isRecordList(value)) {
    for (const item of value) yield* valuesUnder(item, path);
  } else if (isRecord(value)) {
    const [first, ...rest] = path;
    if (first !== undefined) yield* valuesUnder(value.fields[first], rest);
  } else if (typeof value === 'string') yield value;
  else if (typeof value === 'object' && 'choices' in value) yield* value.choices;
}
