import { fieldOf, type RecordSchema } from '../record/schema';
import { isRecord, isRecordList, type FieldValue, type RecordSnapshot } from '../record/snapshot';
import { parsePath } from '../record/value-path';
import { typedFieldValue } from './typed-value';

/** A value that is tried in place of a field's own: by its value path (`deal.lines{L-4}.quantity`), as a person types it. */
export interface Tried {
  path: string;
  value: string;
}

/** A record with other values, as if it had them; and what of them could not be tried, in sentences. */
export function withTried(
  record: RecordSnapshot,
  tried: readonly Tried[],
  schema: RecordSchema,
): { record: RecordSnapshot; faults: string[] } {
  const faults: string[] = [];
  let changed = record;
  for (const { path, value } of tried) {
    const parsed = parsePath(path);
    const steps = parsed && 'root' in parsed ? parsed.steps : [];
    const result = steps.length > 0 ? withValue(changed, steps, value.trim(), schema, changed) : undefined;
    if (result === undefined) faults.push(`There is no “${path}” to be tried.`);
    else if ('fault' in result) faults.push(result.fault);
    else changed = result.record;
  }
  return { record: changed, faults };
}

type Steps = readonly { name: string; item?: string }[];

function withValue(
  record: RecordSnapshot,
  [step, ...rest]: Steps,
  typed: string,
  schema: RecordSchema,
  whole: RecordSnapshot,
): { record: RecordSnapshot } | { fault: string } | undefined {
  const { name, item } = step!;
  const field = fieldOf(schema, record.type, name);
  if (!field) return undefined;
  const put = (value: FieldValue) => ({ record: { ...record, fields: { ...record.fields, [name]: value } } });
  const before = record.fields[name] ?? null;
  if (rest.length === 0) {
    if (field.target || field.type === 'image') return undefined;
    const read = typedFieldValue(field, typed);
    return 'fault' in read ? read : put(inItsCurrency(read.value, before, [record, whole]));
  }
  if (isRecordList(before)) {
    const at = before.findIndex(({ id }) => id === item);
    const inside = at === -1 ? undefined : withValue(before[at]!, rest, typed, schema, whole);
    return inside && 'record' in inside ? put(before.toSpliced(at, 1, inside.record)) : inside;
  }
  if (before === null || !isRecord(before)) return undefined;
  const inside = withValue(before, rest, typed, schema, whole);
  return inside && 'record' in inside ? put(inside.record) : inside;
}

/** Money is tried in the currency that it has, or that other money of its record has, or of the whole record with all that it leads to. */
function inItsCurrency(value: FieldValue, before: FieldValue, around: readonly RecordSnapshot[]): FieldValue {
  if (typeof value !== 'object' || value === null || !('amount' in value)) return value;
  const [currency] = [before, ...around].flatMap((each) => currencyIn(each) ?? []);
  return { ...value, currency: currency ?? null };
}

/** The currency of the first money in a value: itself, or within the records that it is. */
function currencyIn(value: FieldValue): string | undefined {
  if (typeof value !== 'object' || value === null) return undefined;
  if ('amount' in value) return value.currency ?? undefined;
  const inner = isRecord(value) ? Object.values(value.fields) : isRecordList(value) ? value : [];
  for (const each of inner) {
    const found = currencyIn(each);
    if (found !== undefined) return found;
  }
  return undefined;
}
