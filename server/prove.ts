import { calledRecord } from '../core/record/layout';
import type { Fault } from '../core/shape/faults';
import { readsOf } from '../core/template/reads';
import type { Pins, Template } from '../core/template/template';
import { recordSchema } from './records/record-schema';
import type { StoppedRecord } from './db/schema';
import { compositionInput, readAllWithPaths } from './productions/template';
import { proofRecords } from './proof-records';
import type { Services } from './services';

/** What proving a template on records brought to light. */
export interface Proved {
  /** Faults of the template that show only on a record. */
  faults: Fault[];
  /** Records that stop, through what is on them. */
  records: StoppedRecord[];
}

/**
 * Composes a template over the records it names, or over ten that differ most in what it reads, and tells what would stop them.
 * @throws SourceError
 */
export async function proveOnRecords(services: Services, template: Template, pins: Pins): Promise<Proved> {
  const faults = new Map<string, Fault>();
  const records: StoppedRecord[] = [];
  const schema = await recordSchema();
  const paths = readsOf(template, pins, schema);
  const ids = await proofRecords(services, template, pins, paths, schema);
  for (const snapshot of await readAllWithPaths(services, template, paths, ids)) {
    const { id } = snapshot;
    const { findings } = await services.press.compose(
      await compositionInput(services.database, { template, pins }, snapshot),
    );
    const stops = findings.filter(({ severity }) => severity === 'stops');
    const name = calledRecord(snapshot, schema);
    for (const { sentence, block = '' } of stops.filter(({ of }) => of === 'template')) {
      if (!faults.has(sentence)) faults.set(sentence, { path: block, sentence: `On “${name}”: ${sentence}` });
    }
    const sentences = [...new Set(stops.filter(({ of }) => of !== 'template').map(({ sentence }) => sentence))];
    if (sentences.length > 0) records.push({ type: snapshot.type, id, name, sentences });
  }
  return { faults: [...faults.values()], records };
}
