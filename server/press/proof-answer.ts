import { createHash } from 'node:crypto';
import type { Contract } from '../../core/contract/contract';
import type { AnswerOf, Served } from '../../core/contract/endpoint';
import type { Composition } from '../../core/production/composition';
import type { ProofPages } from '../../render/typst/typesetter';

/** What a proof is answered with. */
export type ProofAnswer = Served<AnswerOf<Contract['POST /productions']>>;
/** What is known of it before it is composed. */
export type ProofHead = Pick<ProofAnswer, 'id' | 'template' | 'record' | 'issueDate' | 'editions'>;

/** The whole answer. Of pages, and the glyphs that they share, those go without their drawing that are at hand where it goes to. */
export function proofAnswer(
  head: ProofHead,
  composition: Composition,
  { glyphs, pages, pageSize }: ProofPages,
  has: readonly string[],
): ProofAnswer {
  const { findings, figures, bridge, values, fileName, title, used, leftOut, proved, currency, edition, annexes } =
    composition;
  const known = new Set(has);
  const part = (drawing: string) => {
    const digest = createHash('sha256').update(drawing).digest('base64url').slice(0, 22);
    return known.has(digest) ? { digest } : { digest, drawing };
  };
  return {
    ...head,
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
    pages: { glyphs: part(glyphs), pages: pages.map(part), pageSize },
  };
}

type Blocks = Composition['document']['body'];

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
