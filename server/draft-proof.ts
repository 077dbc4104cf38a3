import { randomUUID } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import { calledRecord, partField } from '../core/record/layout';
import { pathsNear, treeOf, type PathTree } from '../core/record/paths';
import type { RecordSnapshot } from '../core/record/snapshot';
import { readsOf } from '../core/template/reads';
import { sampleRecord } from '../core/template/sample-record';
import type { Pins, Template } from '../core/template/template';
import { withTried, type Tried } from '../core/template/what-if';
import { houseStyleOf } from '../core/template/house-style-of';
import { calledByType, type RecordSchema } from '../core/record/schema';
import { FormulaError } from '../core/formula/ast';
import type { Contract } from '../core/contract/contract';
import type { AnswerOf, BodyOf } from '../core/contract/endpoint';
import { openDraft, refuseUnseenTemplate } from './drafts';
import { EncodedJson } from './edge/answer';
import type { Caller } from './people/caller';
import { Problem } from './problem';
import { compositionInput, readWithPaths } from './productions/template';
import { keepRecord } from './press/parts';
import type { Sending } from './productions/proof';
import { filedFrom, replayInput } from './replay';
import { proofRecords } from './proof-records';
import { faultyTemplate, pinsFor } from './publish';
import { recordSchema } from './records/record-schema';
import { crm } from './records/sources';
import type { Services } from './services';

/**
 * The records that a draft is proved on; `withValues`: each with every field that a condition can look at.
 * @throws Problem, SourceError
 */
export async function recordsToProveOn(
  services: Services,
  templateId: string,
  withValues: boolean,
  caller: Caller,
): Promise<{ id: string; name: string; record?: RecordSnapshot }[]> {
  const { template, pins, schema } = await openDraft(services, templateId, caller);
  const { type } = template.record;
  const near = treeOf(
    pathsNear(schema, type).map((path) => path.split('.')),
    schema,
    type,
  );
  const ids = await proofRecords(services, template, pins, readsOrAll(), schema);
  const records = await crm.readMany(type, ids, withValues ? near : partsOf(schema, type));
  return records.map((record) => ({
    id: record.id,
    name: calledRecord(record, schema),
    ...(withValues && { record }),
  }));

  /** What the draft reads; everything while one of its formulas cannot be read. */
  function readsOrAll(): PathTree {
    try {
      return readsOf(template, pins, schema);
    } catch {
      return near;
    }
  }
}

/** What a record is called by. */
const partsOf = (schema: RecordSchema, type: string): PathTree => {
  const name = partField(schema, type, 'name');
  return treeOf(name === undefined ? [] : [[name]], schema, type);
};

type Wanted = BodyOf<Contract['POST /templates/{id}/draft/proof']>;

/**
 * The proof of a draft as it is given, for a record with values that are tried. It is kept nowhere and begins no production, so there is
 * no way from it to a filing.
 * @throws Problem with the draft's mistakes, SourceError
 */
export async function proofDraft(
  services: Services,
  templateId: string,
  { template, record, document, edition, houseStyle, tried = [], fresh }: Wanted,
  caller: Caller,
  sending: Sending,
): Promise<EncodedJson<AnswerOf<Contract['POST /templates/{id}/draft/proof']>>> {
  const { database, press } = services;
  const [schema, pins] = await Promise.all([
    recordSchema(),
    pinsFor(database, template, 'The proof was not made'),
    refuseUnseenTemplate(database, templateId, template, caller),
  ]);
  const filed = document === undefined ? undefined : await filedFrom(database, templateId, document, caller);
  const read = filed
    ? filed.snapshot
    : record === undefined
      ? sampleRecord(template.sample ?? {}, schema, template.record.type).record
      : await lately(services, template, readsOrFaults(template, pins, schema), record, fresh === true);
  const snapshot = triedOn(read, tried, schema);
  const chosen = { ...(edition !== undefined && { edition }), ...(houseStyle !== undefined && { houseStyle }) };
  const input = filed
    ? await replayInput(database, { template, pins }, { ...filed, snapshot }, chosen)
    : await compositionInput(database, { template, pins }, snapshot, chosen);
  const { type } = snapshot;
  const head = {
    record: { type, called: calledByType(schema, type), id: snapshot.id, name: calledRecord(snapshot, schema) },
    issueDate: input.context.issueDate,
    editions: template.editions.map(({ id, label }) => ({ id, label })),
    houseStyle: houseStyle ?? houseStyleOf(template, pins).houseStyle.id,
  };
  try {
    const { answer } = await press.proof(input, randomUUID(), { head, ...sending });
    return new EncodedJson(answer, sending.encoding);
  } catch (problem) {
    // What is wrong with the draft tells more than how setting it failed.
    const report = await press.faultsOf(template, pins, schema);
    throw report.count > 0 ? faultyTemplate('The draft has mistakes', report) : problem;
  }
}

/** What a draft reads. @throws Problem where one of its formulas cannot be read */
function readsOrFaults(template: Template, pins: Pins, schema: RecordSchema): PathTree {
  try {
    return readsOf(template, pins, schema);
  } catch (problem) {
    if (!(problem instanceof FormulaError)) throw problem;
    throw new Problem(422, 'A formula cannot be read', `${problem.message} The proof follows once it is mended.`);
  }
}

/** The record with the values that are tried. @throws Problem for one that its field cannot hold */
function triedOn(read: RecordSnapshot, tried: readonly Tried[], schema: RecordSchema): RecordSnapshot {
  const { record, faults } = withTried(read, tried, schema);
  if (faults.length > 0) throw new Problem(422, 'A value cannot be tried', faults.join(' '));
  return record;
}

/** Records as they were read for drafts: whoever types does not have the CRM asked at each letter. */
const readings = new LRUCache<string, { paths: string; record: RecordSnapshot }>({ max: 60, ttl: 60_000 });

async function lately(
  services: Services,
  template: Template,
  paths: PathTree,
  id: string,
  fresh: boolean,
): Promise<RecordSnapshot> {
  const key = `${template.record.type} ${id}`;
  const wanted = JSON.stringify(paths, (_, value: unknown) =>
    value instanceof Set
      ? [...(value as Set<string>)]
      : value instanceof Map
        ? [...(value as Map<string, unknown>)]
        : value,
  );
  const known = readings.get(key);
  if (known?.paths === wanted && !fresh) return known.record;
  const record = await readWithPaths(services, template, paths, id);
  keepRecord(record);
  readings.set(key, { paths: wanted, record });
  return record;
}
