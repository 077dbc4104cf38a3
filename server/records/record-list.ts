import { and, count, desc, eq, inArray, type SQL } from 'drizzle-orm';
import type { Contract } from '../../core/contract/contract';
import type { AnswerOf, QueryOf } from '../../core/contract/endpoint';
import type { RECORD_SORTS } from '../../core/contract/records';
import { heldValues, type HeldValue } from '../../core/record/held';
import { documentTypes, layoutOf, listedFields, partField, LISTED_PARTS } from '../../core/record/layout';
import { treeOf, type PathTree } from '../../core/record/paths';
import {
  fieldLabel,
  fieldOf,
  pluralOf,
  recordTypeOf,
  type FieldSchema,
  type RecordSchema,
} from '../../core/record/schema';
import type { RecordSnapshot } from '../../core/record/snapshot';
import { containing, sorted } from '../db/containing';
import type { Database } from '../db/database';
import { documents, recordIndex, recordReadings } from '../db/schema';
import { refuseUnseenRecord, seesKind, seesType } from '../people/access';
import type { Caller } from '../people/caller';
import { Problem } from '../problem';
import { indexOf, readingOf } from './record-index';
import { recordSchema } from './record-schema';
import type { RecordId } from './source';
import { crm } from './sources';

type ListQuery = QueryOf<Contract['GET /records/{type}']>;
type Filters = QueryOf<Contract['GET /record-types/{type}']>;
type View = ListQuery['view'];
type Row = AnswerOf<Contract['GET /records/{type}']>['records'][number];

const SORTS = {
  name: recordIndex.name,
  account: recordIndex.account,
  stage: recordIndex.stage,
  amount: recordIndex.amount,
  day: recordIndex.day,
  awkward: recordIndex.awkward,
} satisfies Record<(typeof RECORD_SORTS)[number], unknown>;

/** The types of records that documents are made from, as far as a caller sees them. @throws SourceError */
export async function recordTypes(caller: Caller) {
  const schema = await recordSchema();
  return documentTypes(schema)
    .filter(({ name }) => seesType(caller, name))
    .map((type) => ({
      name: type.name,
      label: type.label,
      plural: pluralOf(type),
      parts: Object.fromEntries(
        LISTED_PARTS.flatMap((part) => {
          const field = partField(schema, type.name, part);
          return field === undefined ? [] : [[part, fieldLabel(schema, type.name, field)]];
        }),
      ),
      icon: layoutOf(schema, type.name).icon ?? null,
      columns: listedFields(schema, type.name),
      needsQuote: layoutOf(schema, type.name).needsQuote.length > 0,
    }));
}

/** The schema, for a type of records that documents are made from and that a caller may see. @throws Problem, SourceError */
export async function schemaFor(type: string, caller: Caller): Promise<RecordSchema> {
  const schema = await recordSchema();
  if (recordTypeOf(schema, type)?.files === undefined)
    throw new Problem(404, 'No such records', 'The CRM has no records of this type that documents could be made from.');
  refuseUnseenRecord(caller, type);
  return schema;
}

/** A page of the records of a type, each with its paper trail from the register. @throws Problem, SourceError */
export async function listRecords(database: Database, type: string, query: ListQuery, caller: Caller) {
  const schema = await schemaFor(type, caller);
  const where = and(...conditionsOf(type, query, schema));
  const column = SORTS[query.sort as keyof typeof SORTS] ?? recordIndex.name;
  const [rows, [counted], [reading]] = await Promise.all([
    database
      .select(ROW)
      .from(recordIndex)
      .where(where)
      .orderBy(...sorted(column, query.descending, recordIndex.id))
      .limit(query.top)
      .offset(query.skip),
    database.select({ total: count() }).from(recordIndex).where(where),
    database.select({ knownAt: recordReadings.knownAt }).from(recordReadings).where(readingOf(type)),
  ]);
  const trails = await paperTrails(database, type, rows, caller);
  return {
    records: rows.map((row) => ({ ...row, paperTrail: trails.get(row.id) ?? [] })),
    total: counted!.total,
    knownAt: reading?.knownAt ?? null,
  };
}

const ROW = {
  id: recordIndex.id,
  name: recordIndex.name,
  account: recordIndex.account,
  stage: recordIndex.stage,
  amount: recordIndex.amount,
  currency: recordIndex.currency,
  day: recordIndex.day,
  columns: recordIndex.columns,
};

function inView(view: View, needsQuote: readonly string[]): SQL | undefined {
  if (view === 'quoted') return eq(recordIndex.isQuoted, true);
  if (view === 'needs-quote') return and(eq(recordIndex.isQuoted, false), inArray(recordIndex.stage, [...needsQuote]));
  return undefined;
}

const conditionsOf = (type: string, query: ListQuery, schema: RecordSchema) => [
  inView(query.view, layoutOf(schema, type).needsQuote),
  ...filteredBy(type, query),
];

function filteredBy(type: string, { stage, owner, search }: Filters) {
  return [
    indexOf(type),
    stage ? eq(recordIndex.stage, stage) : undefined,
    owner ? eq(recordIndex.owner, owner) : undefined,
    search ? containing(search, recordIndex.words) : undefined,
  ];
}

/** The first records of a type that have the words. */
export async function findRecords(database: Database, of: string, search: string, most: number) {
  const { type, id, name, account } = recordIndex;
  return database
    .select({ type, id, name, account })
    .from(recordIndex)
    .where(and(indexOf(of), containing(search, recordIndex.words)))
    .orderBy(name, id)
    .limit(most);
}

/** How many records of a type each view has under some filters, and the stages and owners to filter by. @throws Problem, SourceError */
export async function recordSummary(database: Database, type: string, filters: Filters, caller: Caller) {
  const schema = await schemaFor(type, caller);
  const { parts, needsQuote } = layoutOf(schema, type);
  const { isQuoted, stage, owner } = recordIndex;
  const counted = (conditions: readonly (SQL | undefined)[]) =>
    database
      .select({ isQuoted, stage, owner, count: count() })
      .from(recordIndex)
      .where(and(...conditions))
      .groupBy(isQuoted, stage, owner);
  const isFiltered = Object.values(filters).some(Boolean);
  const [all, rows] = await Promise.all([
    counted([indexOf(type)]),
    isFiltered ? counted(filteredBy(type, filters)) : undefined,
  ]);
  const each = (part: 'stage' | 'owner') => [...new Set(all.flatMap((row) => row[part] || []))].sort();
  const sum = (holds: (row: (typeof all)[number]) => boolean) =>
    (rows ?? all).filter(holds).reduce((total, row) => total + row.count, 0);
  const allowed = parts.stage === undefined ? undefined : fieldOf(schema, type, parts.stage)?.allowed;
  return {
    counts: {
      all: sum(() => true),
      quoted: sum((row) => row.isQuoted),
      'needs-quote': sum((row) => !row.isQuoted && needsQuote.includes(row.stage)),
    },
    // Where the source leaves its stages open, those of the records themselves.
    stages: allowed?.map(({ value }) => value) ?? each('stage'),
    owners: each('owner'),
  };
}

async function paperTrails(
  database: Database,
  type: string,
  rows: readonly { id: string }[],
  caller: Caller,
): Promise<Map<string, Row['paperTrail']>> {
  const trails = new Map<string, Row['paperTrail']>();
  if (rows.length === 0) return trails;
  const ids = rows.map(({ id }) => id);
  const latest = await database
    .selectDistinctOn([documents.recordId, documents.kind], {
      recordId: documents.recordId,
      id: documents.id,
      kind: documents.kind,
      state: documents.state,
      number: documents.number,
    })
    .from(documents)
    .where(and(eq(documents.recordType, type), inArray(documents.recordId, ids)))
    .orderBy(documents.recordId, documents.kind, desc(documents.createdAt));
  for (const { recordId, ...entry } of latest.filter(({ kind }) => seesKind(caller, kind)))
    trails.set(recordId, [...(trails.get(recordId) ?? []), entry]);
  return trails;
}

/** The fields of a related record: all plain ones, but in a list of records that have a page of their own its columns. */
function shownOf(schema: RecordSchema, { type, target }: FieldSchema): string[] {
  const related = recordTypeOf(schema, target);
  const plain = Object.values(related?.fields ?? {}).filter((field) => !field.target);
  const { parts, columns } = layoutOf(schema, target);
  const listed = new Set([parts.name, ...columns]);
  const isOwn = type === 'records' && related?.files !== undefined;
  return plain.filter(({ name, identifies }) => !isOwn || identifies || listed.has(name)).map(({ name }) => name);
}

/** A record with the values that are asked for by their dotted paths. @throws Problem, SourceError */
export async function recordValues(
  record: RecordId,
  paths: readonly string[],
  caller: Caller,
): Promise<RecordSnapshot> {
  const schema = await schemaFor(record.type, caller);
  const tree = treeOf(
    paths.map((path) => path.split('.')),
    schema,
    record.type,
  );
  return crm.read(record, tree);
}

/** Among how many records values are looked for. */
const HELD_AMONG = 500;

/** The values that the newest records hold under a dotted path, and how many of them were looked at. @throws Problem, SourceError */
export async function valuesHeld(
  type: string,
  path: string,
  caller: Caller,
): Promise<{ among: number; values: HeldValue[] }> {
  const schema = await schemaFor(type, caller);
  const names = path.split('.');
  const records = await crm.list(type, treeOf([names], schema, type), { top: HELD_AMONG, last: true });
  return { among: records.length, values: heldValues(records, names) };
}

/** A record with all its fields, its related records and line items, and what the fields mean. @throws Problem, SourceError */
export async function wholeRecord(
  record: RecordId,
  caller: Caller,
): Promise<{ record: RecordSnapshot; schema: RecordSchema }> {
  const schema = await schemaFor(record.type, caller);
  return { record: await crm.read(record, wholePaths(schema, record.type)), schema };
}

/** Every field of a type, with what is shown of what it leads to. */
function wholePaths(schema: RecordSchema, type: string): PathTree {
  const fields = Object.values(recordTypeOf(schema, type)?.fields ?? {});
  const paths = fields.flatMap((field) =>
    field.target === undefined ? [[field.name]] : shownOf(schema, field).map((name) => [field.name, name]),
  );
  return treeOf(paths, schema, type);
}
