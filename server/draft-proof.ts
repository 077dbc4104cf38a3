import { calledRecord } from '../core/record/layout';
import { pathsNear, treeOf, type PathTree } from '../core/record/paths';
import type { RecordSnapshot } from '../core/record/snapshot';
import { readsOf } from '../core/template/reads';
import { openDraft } from './drafts';
import type { Caller } from './people/caller';
import { proofRecords } from './proof-records';
import { crm } from './records/sources';
import type { Services } from './services';

/** The records that a draft is proved on, each with every field that a condition can look at. @throws Problem, SourceError */
export async function recordsToProveOn(
  services: Services,
  templateId: string,
  caller: Caller,
): Promise<{ name: string; record: RecordSnapshot }[]> {
  const { template, pins, schema } = await openDraft(services, templateId, caller);
  const { type } = template.record;
  const near = treeOf(
    pathsNear(schema, type).map((path) => path.split('.')),
    schema,
    type,
  );
  const ids = await proofRecords(template, readsOrAll(), schema);
  const records = await crm.readMany(type, ids, near);
  return records.map((record) => ({ name: calledRecord(record, schema), record }));

  /** What the draft reads; everything while one of its formulas cannot be read. */
  function readsOrAll(): PathTree {
    try {
      return readsOf(template, pins, schema);
    } catch {
      return near;
    }
  }
}
