import { sampleRecord } from '../core/template/sample-record';
import type { RecordSchema } from '../core/record/schema';
import type { RecordSnapshot } from '../core/record/snapshot';
import { readsOf } from '../core/template/reads';
import type { Template } from '../core/template/template';
import { openDraft } from './drafts';
import type { Caller } from './people/caller';
import { Problem } from './problem';
import { printTrial } from './productions/proof';
import { compositionInput, readWithPaths } from './productions/template';
import { faultyTemplate } from './publish';
import { recordSchema } from './records/record-schema';
import type { Services } from './services';

/**
 * A PDF of a draft as it was saved last, marked as a trial on every page: for a record, or for the made-up one that is kept with it.
 * It takes no number and is kept nowhere.
 * @throws Problem with the draft's mistakes; SourceError
 */
export async function draftTrial(
  services: Services,
  templateId: string,
  recordId: string | undefined,
  caller: Caller,
): Promise<{ bytes: Buffer; fileName: string }> {
  const { database, press } = services;
  const { template, pins } = await openDraft(services, templateId, caller);
  const schema = await recordSchema();
  const report = await press.faultsOf(template, pins, schema);
  if (report.count > 0) throw faultyTemplate('The draft has mistakes', report);
  const snapshot =
    recordId === undefined
      ? sampleOf(template, schema)
      : await readWithPaths(services, template, readsOf(template, pins, schema), recordId);
  return printTrial(press, await compositionInput(database, { template, pins }, snapshot));
}

/** The record that is kept with a template. @throws Problem */
function sampleOf({ sample, record: { type } }: Template, schema: RecordSchema): RecordSnapshot {
  if (!sample) throw new Problem(422, 'There is no sample record', 'Write one in the editor, or choose a record.');
  const { record, faults } = sampleRecord(sample, schema, type);
  if (faults.length > 0) throw new Problem(422, 'The sample record has mistakes', faults.join(' '));
  return record;
}
