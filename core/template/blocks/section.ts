import type { ComposedBlock } from '.';

/** Blocks that stand under a condition or are repeated, with the note that stands in the margin beside them. */
export interface ComposedSection {
  kind: 'section';
  block: string;
  note: string;
  blocks: ComposedBlock[];
}

/** A section with its margin note; without blocks it leaves no trace. */
export function sectionOf(block: string, note: string, blocks: ComposedBlock[]): ComposedSection[] {
  return blocks.length === 0 ? [] : [{ kind: 'section', block, note, blocks }];
}

/** Page breaks are for the page itself, not for what is kept together or stands in columns. */
export function withoutBreaks(blocks: readonly ComposedBlock[]): ComposedBlock[] {
  return blocks.flatMap((block): ComposedBlock[] => {
    if (block.kind === 'pageBreak') return [];
    return [block.kind === 'section' ? { ...block, blocks: withoutBreaks(block.blocks) } : block];
  });
}
