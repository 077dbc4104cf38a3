import { fieldOf, type FieldSchema, type RecordSchema } from './schema';
import { isRecord, isRecordList, type FieldValue, type RecordSnapshot } from './snapshot';

/**
 * The records that differ most from each other, at most `count` of them: by what is blank, which choices were made, how many
 * items there are and how great amounts are. First the one that has most of it, then always the one that is least like those taken.
 */
export function mostDifferent(records: readonly RecordSnapshot[], count: number, schema: RecordSchema): RecordSnapshot[] {
  const left = records.map((record) => ({ record, traits: new Set(traitsOf(record, schema)) }));
  left.sort((one, other) => other.traits.size - one.traits.size);
  const taken: typeof left = [];
  while (taken.length < count && left.length > 0) {
    const apart = left.map(({ traits }) => Math.min(Infinity, ...taken.map((each) => distance(traits, each.traits))));
    const [next] = left.splice(apart.indexOf(Math.max(...apart)), 1);
    taken.push(next!);
  }
  return taken.map(({ record }) => record);
} // prettier-ignore

/** From 0 for the same traits to 1 for none in common. */
function distance(one: ReadonlySet<string>, other: ReadonlySet<string>): number {
  let common = 0;
  for (const trait of one) if (other.has(trait)) common++;
  const all = one.size + other.size - common;
  return all === 0 ? 0 : 1 - common / all;
}

function* traitsOf(record: RecordSnapshot, schema: RecordSchema, path = ''): Generator<string> {
  for (const [name, value] of Object.entries(record.fields)) {
    yield* traitsOfValue(value, fieldOf(schema, record.type, name), schema, `${path}${name}`);
  }
}

function* traitsOfValue(value: FieldValue, field: FieldSchema | undefined, schema: RecordSchema, path: string): Generator<string> {
  if (value === null || value === '') return yield `${path} blank`;
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
} // prettier-ignore

const sizeOf = (count: number): string =>
  count < 3 ? String(count) : count < 10 ? 'some' : count < 40 ? 'many' : 'very many';

/** Sign, and how many digits stand before the point. */
function greatnessOf(decimal: string): string {
  if (/^-?0*(\.0*)?$/.test(decimal)) return 'zero';
  const whole = /^-?0*(\d*)/.exec(decimal)![1]!;
  return `${decimal.startsWith('-') ? 'below zero ' : ''}${whole.length} digits`;
}
