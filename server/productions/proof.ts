import type { Contract } from '../../core/contract/contract';
import type { AnswerOf } from '../../core/contract/endpoint';
import type { WorkedBack } from '../../core/production/work-back';
import type { DocumentParts } from '../../core/production/document-parts';
import { calledRecord } from '../../core/record/layout';
import { calledByType, recordTypeOf } from '../../core/record/schema';
import { saysSame } from '../../core/record/snapshot';
import type { Workings } from '../../core/sheet/workings';
import type { Encoding } from '../compress';
import { EncodedJson } from '../edge/answer';
import type { Caller } from '../people/caller';
import { Problem } from '../problem';
import { recordSchema } from '../records/record-schema';
import { readForTemplate, templateVersion } from './template';
import type { Services } from '../services';
import type { CompositionInput, Press, Proofing } from '../press/press';
import type { PagesAnswer, ProofHead, Span } from '../press/proof-answer';
import {
  beginProduction,
  inputOf,
  keepProduction,
  openProduction,
  productionInput,
  type Begun,
  type Wanted,
} from './production';

/** How the answer of a proof goes out, and with which drawings. */
export type Sending = Omit<Proofing, 'head'>;

/**
 * The proof of a document: its pages, findings and figures, as JSON. What it was made from is kept under its id, to explain it, to
 * print a trial of it, and to file it.
 * @throws Problem, SourceError
 */
export async function proofDocument(
  services: Services,
  wanted: Wanted,
  caller: Caller,
  sending: Sending,
): Promise<EncodedJson<AnswerOf<Contract['POST /productions']>>> {
  const { database, press } = services;
  const begun = await beginProduction(services, wanted, caller);
  const [input, head] = await Promise.all([inputOf(database, begun), headOf(begun)]);
  const { answer, ...kept } = await press.proof(input, keyOf(begun), { head, ...sending });
  await keepProduction(database, begun, kept, caller);
  return new EncodedJson(answer, sending.encoding);
}

/** Names a proof for the press: each time that somebody goes on with a production, it is another one. */
const keyOf = ({ id, revision }: { id: string; revision: number }) => `${id} ${revision}`;

async function headOf({
  id,
  published,
  snapshot,
  issueDate,
  issueDates,
  revision,
  choices,
  revises,
}: Begun): Promise<ProofHead> {
  const { template, versionId, version } = published;
  const { plan, edition, houseStyle, asNew, issueDate: chosenDate } = choices;
  const schema = await recordSchema();
  const { type } = snapshot;
  return {
    id,
    revision,
    changes: choices.changes ?? [],
    choices: { plan, edition, houseStyle, asNew, issueDate: chosenDate },
    issueDates,
    revises: revises
      ? {
          id: revises.id,
          number: revises.number,
          next: revises.next.text,
          asNew: choices.asNew ?? false,
          replaces: recordTypeOf(schema, type)?.revisesFiles ?? false,
        }
      : null,
    template: {
      id: template.id,
      name: template.name,
      kind: template.kind,
      versionId,
      version,
      plans: template.plans.map(({ id: name, label }) => ({ id: name, label })),
    },
    record: { type, called: calledByType(schema, type), id: snapshot.id, name: calledRecord(snapshot, schema) },
    issueDate,
    editions: template.editions.map(({ id: name, label }) => ({ id: name, label })),
  };
}

/** Drawings of some pages of a proof. @throws Problem */
export async function proofPages(
  { database, press }: Services,
  id: string,
  span: Span,
  caller: Caller,
  encoding: Encoding,
): Promise<EncodedJson<PagesAnswer>> {
  const production = await openProduction(database, id, caller);
  const input = await productionInput(database, production);
  return new EncodedJson(await press.pages(input, keyOf(production), span, encoding), encoding);
}

/** Whether a record says something else by now than it did for its proof. @throws Problem, SourceError */
export async function changedSinceProof(services: Services, id: string, caller: Caller): Promise<boolean> {
  const { database } = services;
  const { templateVersionId, recordId, choices, snapshot } = await openProduction(database, id, caller);
  const now = await readForTemplate(services, await templateVersion(database, templateVersionId), recordId, choices);
  return !saysSame(now, snapshot);
}

/** What of a document can be changed for it alone. @throws Problem */
export async function proofParts({ database, press }: Services, id: string, caller: Caller): Promise<DocumentParts> {
  const production = await openProduction(database, id, caller);
  return press.parts(await productionInput(database, production), keyOf(production));
}

/** The single values that would have a figure of a proof come to a wanted sum, a decimal as text. @throws Problem */
export async function workProofBack(
  { database, press }: Services,
  id: string,
  { figure, wanted }: { figure: string; wanted: string },
  caller: Caller,
): Promise<WorkedBack> {
  const production = await openProduction(database, id, caller);
  const worked = await press.workBack(await productionInput(database, production), keyOf(production), figure, wanted);
  if (worked) return worked;
  throw new Problem(
    422,
    'This cannot be worked back from',
    'The figure is no amount of money, or it cannot be computed yet. Resolve its issues first, or choose another total.',
  );
}

/**
 * A PDF of a proof to look at or to show, marked as a trial on every page. It takes no number and is kept nowhere.
 * @throws Problem, SourceError
 */
export async function trialPdf(
  { database, press }: Services,
  id: string,
  caller: Caller,
): Promise<{ bytes: Buffer; fileName: string }> {
  return printTrial(press, await productionInput(database, await openProduction(database, id, caller)));
}

/** Prints a document that takes no number, marked as a trial on every page. @throws Problem */
export async function printTrial(
  press: Press,
  { context, ...input }: CompositionInput,
): Promise<{ bytes: Buffer; fileName: string }> {
  const { composition, pdf } = await press.print({ ...input, context: { ...context, trial: true } });
  return { bytes: Buffer.from(pdf!), fileName: composition.fileName.replace(/\.pdf$/, ' (trial).pdf') };
}

/** How one figure or value of a proof came about. @throws Problem */
export async function explainProof(
  { database, press }: Services,
  id: string,
  value: string,
  caller: Caller,
): Promise<Workings> {
  const production = await openProduction(database, id, caller);
  const workings = await press.explain(await productionInput(database, production), keyOf(production), value);
  if (!workings)
    throw new Problem(404, 'No such value', 'This proof has no value of that name. Refresh the proof (R).');
  return workings;
}
