import type { ComposedBlock } from '../template/blocks';

/** All blocks that print, and those that they hold, from the outside in. */
export function* everyComposed(blocks: readonly ComposedBlock[]): Generator<ComposedBlock> {
  for (const block of blocks) {
    yield block;
    if (block.kind === 'section' || block.kind === 'keep') yield* everyComposed(block.blocks);
    if (block.kind === 'columns') for (const column of block.columns) yield* everyComposed(column);
  }
}

/** The margin note of each section that prints, by its block. */
export function sectionNotes(blocks: readonly ComposedBlock[]): Record<string, string> {
  const notes: Record<string, string> = {};
  for (const block of everyComposed(blocks)) if (block.kind === 'section') notes[block.block] = block.note;
  return notes;
}
