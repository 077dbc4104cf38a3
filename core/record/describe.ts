import { own } from './own';
import { fieldLabel, type RecordSchema } from './schema';
import { isRecord, isRecordList, type RecordSnapshot } from './snapshot';

/**
 * A path of used values in people's words: `deal.lines{L-4}.unit_price` is "Line 4, Vent motor: unit price".
 * Paths that are no field (the outcome of a condition, a filtered list) say what they stand for.
 */
export function describePath(path: string, snapshot: RecordSnapshot, schema: RecordSchema): string {
  if (path.startsWith('when ')) return 'which sections are printed';
  const steps = path.split('.').slice(1);
  if (steps.at(-1)?.includes('[') || path.includes('[')) return 'which lines are included';
  const words: string[] = [];
  let record: RecordSnapshot | undefined = snapshot;
  for (const step of steps) {
    const [, name, id] = /^(\w+)(?:\{(.+)\})?$/.exec(step) ?? [];
    if (!name) return path;
    if (!record) {
      words.push(name.replaceAll('_', ' '));
      continue;
    }
    const label = fieldLabel(schema, record.type, name);
    const value: unknown = own(record.fields, name);
    if (id && isRecordList(value as never)) {
      const list = value as readonly RecordSnapshot[];
      const position = list.findIndex((each) => each.id === id);
      record = list[position];
      const title = record?.fields.name;
      words.push(
        position === -1
          ? `a line that is gone (${id})`
          : `Line ${position + 1}${typeof title === 'string' ? `, ${title}` : ''}`,
      );
      continue;
    }
    words.push(words.length === 0 ? label : label.toLowerCase());
    record = value !== undefined && isRecord(value as never) ? (value as RecordSnapshot) : undefined;
  }
  return words.join(': ');
}
