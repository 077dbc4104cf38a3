/** The kinds of steps that a plan can have after filing. Each is done once, however often it is tried. */
import { v5 as uuidv5 } from 'uuid';
import type { StepToDo } from '../../../core/production/plan-steps';
import type { FieldValue } from '../../../core/record/snapshot';
import { config } from '../../config';
import { keepCopy } from '../../copies/keep-copy';
import { openPlace } from '../../copies/places';
import { SourceError, type Repeat } from '../../records/source';
import { crm } from '../../records/sources';
import { keptFile } from './attach';
import { recordOf, Unfileable, type Filing, type Finished, type StepKind } from './step';

/** Sets fields of the record to what was composed. */
export const setFields: StepKind = {
  reachesOut: true,
  async run(filing) {
    const { fields, words } = composedStep(filing, 'setFields');
    await changeRecord(filing, fields);
    return done(words);
  },
};

/** Puts the document's address in Lumbix into a field of the record. */
export const address: StepKind = {
  reachesOut: true,
  async run(filing) {
    const { field, words } = composedStep(filing, 'address');
    const link = `${config.publicUrl}/register/${filing.document.id}`;
    await changeRecord(filing, { [field]: link });
    return done(words, { address: link });
  },
};

/** Writes an activity on the record. */
export const activity: StepKind = {
  reachesOut: true,
  async run(filing) {
    const { kind, subject, text, words } = composedStep(filing, 'activity');
    const id = await crm.addActivity(recordOf(filing.document), { kind, subject, text }, repeatOf(filing));
    return done(words, { activity: id });
  },
};

/** Keeps a copy of the PDF at a place. */
export const copy: StepKind = {
  reachesOut: true,
  async run(filing, { database }) {
    const { place, path, words } = composedStep(filing, 'copy');
    const file = await keptFile(database, filing.document.id);
    if (!file) throw new Unfileable('The stored PDF is not there.');
    const kept = await keepCopy(await openPlace(database, place), path, file.bytes);
    return done(kept === path ? words : `${words} It is called “${kept}”, since the other name was taken.`, {
      path: kept,
    });
  },
};

/** The step as it was composed with the document. */
function composedStep<Type extends StepToDo['type']>({ document, step }: Filing, type: Type) {
  const composed = document.composition?.steps.find(({ id }) => id === step.planStep);
  if (!composed || composed.type !== type || 'skipped' in composed)
    throw new Unfileable('What this step does was not kept with the document.');
  return composed as Extract<StepToDo, { type: Type }>;
}

const TRIES = 3;

/** Sets fields of the document's record, whatever its version is by now: a change by others in between is no reason to wait. */
async function changeRecord(filing: Filing, fields: Readonly<Record<string, FieldValue>>): Promise<void> {
  const record = recordOf(filing.document);
  for (let attempt = 1; ; attempt++) {
    const { version = '*' } = await crm.read(record, { fields: new Set(), related: new Map() });
    try {
      return await crm.change(record, version, fields, repeatOf(filing));
    } catch (problem) {
      if (!(problem instanceof SourceError) || problem.failure !== 'conflict') throw problem;
      if (attempt === TRIES) throw new SourceError('away', 'Others are changing the record at the same time.');
    }
  }
}

/** Every attempt of a step is the same request to the CRM. */
const repeatOf = ({ document, step }: Filing): Repeat => ({
  id: uuidv5(step.planStep!, document.id),
  firstSent: document.createdAt,
});

const done = (sentence: string, answer: Finished['answer'] = {}): Finished => ({
  answer,
  told: [{ kind: 'step', sentence }],
});
