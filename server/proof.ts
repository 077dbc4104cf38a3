import { today } from './config';
import { currentTemplate, pressJob, readForTemplate } from './filing/template';
import type { Services } from './services';

/**
 * The proof of a document: its pages, findings and workings, and what filing it will need to know.
 * @throws Problem, CrmError
 */
export async function proofDocument({ database, press }: Services, recordId: string, templateId: string) {
  const published = await currentTemplate(database, templateId);
  const snapshot = await readForTemplate(published.template, recordId);
  const { composition, pages } = await press.proof(await pressJob(published, snapshot));
  const { findings, workings, figures, values, fileName, title, used, leftOut, proved, currency } = composition;
  return {
    template: { id: published.template.id, name: published.template.name, versionId: published.versionId, version: published.version },
    record: { id: snapshot.id, name: String(snapshot.fields.name ?? snapshot.id) },
    issueDate: today(),
    sections: sectionNotes(composition.document.body),
    findings, workings, figures, values, fileName, title, used, leftOut, proved, currency, pages,
  }; // prettier-ignore
}

type Blocks = Awaited<ReturnType<Services['press']['compose']>>['document']['body'];

/** The margin note of each section on the page, by block. */
function sectionNotes(blocks: Blocks): Record<string, string> {
  const notes: Record<string, string> = {};
  const visit = (each: Blocks) => {
    for (const block of each) {
      if (block.kind === 'section') notes[block.source] = block.note;
      if (block.kind === 'section' || block.kind === 'keep') visit(block.blocks);
      if (block.kind === 'columns') block.columns.forEach(visit);
    }
  };
  visit(blocks);
  return notes;
}
