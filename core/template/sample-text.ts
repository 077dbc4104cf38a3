import { fieldOf, type RecordSchema } from '../record/schema';
import { boundedJson } from '../shape/bounds';
import { isObject, type Sample } from './sample-record';

const BOUNDS = { values: 20_000, objects: 4_000, depth: 8, items: 2_000, text: 100_000, name: 120 };

/** A made-up record from JSON. Gives it, or why it can't be read, in a sentence. */
export function sampleFromJson(source: string): { sample: Sample } | { refused: string } {
  const read = boundedJson(source, 'The sample', BOUNDS);
  if ('refused' in read) return read;
  return isObject(read.data)
    ? { sample: read.data }
    : { refused: 'The sample is no record: begin it with “{” and name its fields.' };
}

/**
 * A made-up record from the rows of a table. The first row has the paths of its fields (`name`, `account.name`,
 * `lines.quantity`); below it, each row has one item of its lists, and what stands beside them is taken from the first row that has it.
 */
export function sampleFromRows(
  [heading = [], ...rows]: readonly (readonly string[])[],
  schema: RecordSchema,
  type: string,
): Sample {
  const sample = nothing();
  const paths = heading.map((cell) => cell.trim().split('.'));
  for (const row of rows) {
    const items = new Map<string, Nested>();
    row.forEach((cell, at) => {
      const [first, ...rest] = paths[at] ?? [''];
      const text = cell.trim();
      if (text === '' || !first) return;
      if (fieldOf(schema, type, first)?.type !== 'records') return void put(sample, [first, ...rest], text);
      const item = items.get(first) ?? nothing();
      put(item, rest, text);
      items.set(first, item);
    });
    for (const [list, item] of items) sample[list] = [...((sample[list] as Nested[] | undefined) ?? []), item];
  }
  return sample;
}

/** Fields inside of fields, as a table's paths lead to them. */
type Nested = Record<string, unknown>;
/** Of no prototype, so that any name is a name. */
const nothing = () => Object.create(null) as Nested;

/** Puts a text where a path leads to, unless something is there already. */
function put(into: Nested, [name = '', ...rest]: readonly string[], text: string): void {
  if (rest.length === 0) return void (into[name] ??= text);
  const inner = (into[name] ??= nothing());
  if (isObject(inner)) put(inner as Nested, rest, text);
}
