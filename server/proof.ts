import { LRUCache } from 'lru-cache';
import { v7 as uuidv7 } from 'uuid';
import type { ComposeContext } from '../core/production/compose';
import type { Workings } from '../core/sheet/workings';
import { today } from './config';
import { seenTemplate, compositionInput, readForTemplate } from './filing/template';
import type { CompositionInput } from './press/press';
import type { Caller } from './people/caller';
import { Problem } from './problem';
import type { Services } from './services';

/** What the proofs that people have open were made from, so that their values can be explained as they are shown. */
const open = new LRUCache<string, { input: CompositionInput; of: string }>({ max: 200 });

/**
 * The proof of a document: its pages, findings and figures, and what filing it will need to know.
 * @throws Problem, CrmError
 */
export async function proofDocument(
  { database, press }: Services,
  recordId: string,
  templateId: string,
  caller: Caller,
  forced: Pick<ComposeContext, 'edition' | 'houseStyle'> = {},
) {
  const published = await seenTemplate(database, templateId, caller);
  const snapshot = await readForTemplate({ database, press }, published, recordId);
  const key = uuidv7();
  const input = await compositionInput(database, published, snapshot, forced);
  open.set(key, { input, of: caller.id });
  const { composition, pages } = await press.proof(input, key);
  const { findings, figures, bridge, values, fileName, title, used, leftOut, proved, currency, edition, annexes } =
    composition;
  return {
    key,
    template: {
      id: published.template.id,
      name: published.template.name,
      kind: published.template.kind,
      versionId: published.versionId,
      version: published.version,
    },
    record: { id: snapshot.id, name: String(snapshot.fields.name ?? snapshot.id) },
    issueDate: today(),
    sections: sectionNotes(composition.document.body),
    findings,
    figures,
    bridge,
    values,
    fileName,
    title,
    used,
    leftOut,
    proved,
    currency,
    edition,
    annexes,
    pages,
    editions: published.template.editions.map(({ id, label }) => ({ id, label })),
  };
}

/**
 * A PDF to look at or to show, marked as a trial on every page. It takes no number and is kept nowhere.
 * @throws Problem, CrmError
 */
export async function trialPdf(
  { database, press }: Services,
  recordId: string,
  templateId: string,
  caller: Caller,
  forced: Pick<ComposeContext, 'edition' | 'houseStyle'> = {},
): Promise<{ bytes: Buffer; fileName: string }> {
  const published = await seenTemplate(database, templateId, caller);
  const snapshot = await readForTemplate({ database, press }, published, recordId);
  const { composition, pdf } = await press.print(
    await compositionInput(database, published, snapshot, { ...forced, trial: true }),
  );
  return { bytes: Buffer.from(pdf!), fileName: composition.fileName.replace(/\.pdf$/, ' (trial).pdf') };
}

/** How one figure or value of a proof that the caller has open came about. @throws Problem */
export async function explainProof({ press }: Services, key: string, id: string, caller: Caller): Promise<Workings> {
  const proof = open.get(key);
  const workings = proof?.of === caller.id && (await press.explain(proof.input, key, id));
  if (!workings)
    throw new Problem(404, 'This proof is no longer open', 'Read the deal again, then look at the workings.');
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
