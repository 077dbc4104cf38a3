import { calledRecord } from '../../core/record/layout';
import { calledByType } from '../../core/record/schema';
import type { Workings } from '../../core/sheet/workings';
import type { Caller } from '../people/caller';
import { Problem } from '../problem';
import { recordSchema } from '../records/record-schema';
import type { Services } from '../services';
import { beginProduction, inputOf, keepProduction, ownProduction, productionInput, type Wanted } from './production';

/**
 * The proof of a document: its pages, findings and figures. What it was made from is kept under its id, to explain it, to print a
 * trial of it, and to file it.
 * @throws Problem, SourceError
 */
export async function proofDocument(services: Services, wanted: Wanted, caller: Caller) {
  const { database, press } = services;
  const begun = await beginProduction(services, wanted, caller);
  const { id, published, snapshot, issueDate } = begun;
  const { composition, pages } = await press.proof(await inputOf(database, begun), id);
  await keepProduction(database, begun, composition, caller);
  const schema = await recordSchema();
  const { findings, figures, bridge, values, fileName, title, used, leftOut, proved, currency, edition, annexes } =
    composition;
  return {
    id,
    template: {
      id: published.template.id,
      name: published.template.name,
      kind: published.template.kind,
      versionId: published.versionId,
      version: published.version,
    },
    record: {
      type: snapshot.type,
      called: calledByType(schema, snapshot.type),
      id: snapshot.id,
      name: calledRecord(snapshot, schema),
    },
    issueDate,
    sections: sectionNotes(composition.document.body),
    findings,
    figures,
    bridge,
    values,
    fileName,
    title,
    read: Object.keys(used).length,
    leftOut,
    proved,
    currency,
    edition,
    annexes,
    pages,
    editions: published.template.editions.map(({ id: name, label }) => ({ id: name, label })),
  };
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
  const { context, ...input } = await productionInput(database, await ownProduction(database, id, caller));
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
  const production = await ownProduction(database, id, caller);
  const workings = await press.explain(await productionInput(database, production), id, value);
  if (!workings)
    throw new Problem(404, 'No such value', 'This proof has no value of that name. Read the record again.');
  return workings;
}

type Blocks = Awaited<ReturnType<Services['press']['compose']>>['document']['body'];

/** The margin note of each section on the page, by block. */
function sectionNotes(blocks: Blocks): Record<string, string> {
  const notes: Record<string, string> = {};
  const visit = (each: Blocks) => {
    for (const block of each) {
      if (block.kind === 'section') notes[block.block] = block.note;
      if (block.kind === 'section' || block.kind === 'keep') visit(block.blocks);
      if (block.kind === 'columns') block.columns.forEach(visit);
    }
  };
  visit(blocks);
  return notes;
}
