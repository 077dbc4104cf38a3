import { createHash } from 'node:crypto';
import type { Contract } from '../../core/contract/contract';
import type { AnswerOf, Served } from '../../core/contract/endpoint';
import type { Composition } from '../../core/production/composition';
import type { Run } from '../../core/template/composed';
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
    values: shownValues(values, composition.document),
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

/** Values with their texts as they are printed, in whatever runs they are. */
function shownValues(values: Composition['values'], { header, body }: Composition['document']): ProofAnswer['values'] {
  const texts = new Map<string, string>();
  JSON.stringify([header, body], (_key, run: Partial<Extract<Run, { kind: 'text' }>> | null) => {
    const { value, text } = run ?? {};
    if (value !== undefined && text !== undefined) texts.set(value, `${texts.get(value) ?? ''}${text}`);
    return run;
  });
  return Object.fromEntries(Object.entries(values).map(([id, each]) => [id, { ...each, text: texts.get(id) ?? '' }]));
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
