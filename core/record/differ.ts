import { fieldOf, type FieldSchema, type RecordSchema } from './schema';
import { isRecord, isRecordList, type FieldValue, type RecordSnapshot } from './snapshot';

/**
 * The records that differ most from each other, at most `count` of them: by what is blank, which choices were made, how many
 * items there are and how great amounts are. Always the one that brings most of what none taken before has, where what few records
 * have counts for more.
 */
export const mostDifferent = (
  records: readonly RecordSnapshot[],
  count: number,
  schema: RecordSchema,
): RecordSnapshot[] => mostDifferentBy(records, count, (record) => traitsOf(record, schema));

/** Those that differ most from each other by some traits, at most `count` of them. */
export function mostDifferentBy<Item>(
  items: readonly Item[],
  count: number,
  traits: (item: Item) => Iterable<string>,
): Item[] {
  const left = items.map((item) => ({ item, traits: new Set(traits(item)) }));
  const open = rarity(left.map((each) => each.traits));
  const taken: Item[] = [];
  while (taken.length < count && left.length > 0) {
    const news = left.map((each) => [...each.traits].reduce((sum, trait) => sum + (open.get(trait) ?? 0), 0));
    const [next] = left.splice(news.indexOf(Math.max(...news)), 1);
    taken.push(next!.item);
    for (const trait of next!.traits) open.delete(trait);
  }
  return taken;
}

const BLANK = ' blank';

/** What each trait counts for: the more, the fewer records have it; and what is blank most, since that is what stops a document. */
function rarity(records: readonly ReadonlySet<string>[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const traits of records) for (const trait of traits) counts.set(trait, (counts.get(trait) ?? 0) + 1);
  return new Map(
    [...counts].map(([trait, count]) => [trait, (records.length / count) * (trait.endsWith(BLANK) ? 3 : 1)]),
  );
}

function* traitsOf(record: RecordSnapshot, schema: RecordSchema, path = ''): Generator<string> {
  for (const [name, value] of Object.entries(record.fields)) {
    yield* traitsOfValue(value, fieldOf(schema, record.type, name), schema, `${path}${name}`);
  }
}

function* traitsOfValue(
  value: FieldValue,
  field: FieldSchema | undefined,
  schema: RecordSchema,
  path: string,
): Generator<string> {
  if (value === null || value === '') return yield path + BLANK;
  if (isRecordList(value)) {
    yield `${path} ${sizeOf(value.length)}`;
    for (const item of value) yield* traitsOf(item, schema, `${path}.`);
  } else if (isRecord(value)) yield* traitsOf(value, schema, `${path}.`);
  else if (typeof value === 'boolean') yield `${path} ${value}`;
  else if (typeof value === 'string') yield field?.type === 'choice' ? `${path} ${value}` : `${path} there`;
  else if ('choices' in value) yield* value.choices.map((each) => `${path} ${each}`);
  else if ('amount' in value) yield* [`${path} ${value.currency}`, `${path} ${greatnessOf(value.amount)}`];
  else if ('number' in value) yield `${path} ${greatnessOf(value.number)}`;
  else if ('percent' in value) yield `${path} ${greatnessOf(value.percent)}`;
  else yield `${path} there`;
}

const sizeOf = (count: number): string =>
  count < 3 ? String(count) : count < 10 ? 'some' : count < 40 ? 'many' : 'very many';

/** Sign, and how many digits stand before the point. */
function greatnessOf(decimal: string): string {
  if (/^-?0*(\.0*)?$/.test(decimal)) return 'zero';
  const whole = /^-?0*(\d*)/.exec(decimal)![1]!;
  return `${decimal.startsWith('-') ? 'below zero ' : ''}${whole.length} digits`;
}
