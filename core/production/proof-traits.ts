import type { Composition } from './composition';

type Seen = Pick<Composition, 'document' | 'leftOut' | 'findings' | 'currency' | 'edition'>;

/** What tells one document of a template from another: which sections print, how many rows, currency, edition, what stops it. */
export function* proofTraits({ document, leftOut, findings, currency, edition }: Seen): Generator<string> {
  let rows = 0;
  for (const { kind, id, count } of partsOf(document.body)) {
    if (kind === 'section') yield `section ${id}`;
    rows += count;
  }
  for (const { block } of leftOut) yield `left out ${block}`;
  yield `rows ${rows < 3 ? rows : `2^${Math.floor(Math.log2(rows))}`}`;
  yield `currency ${currency ?? ''}`;
  yield `edition ${edition}`;
  for (const { severity, title } of findings) if (severity !== 'notes') yield `${severity} ${title}`;
}

type Blocks = Composition['document']['body'];

function* partsOf(blocks: Blocks): Generator<{ kind: string; id: string; count: number }> {
  for (const block of blocks) {
    const count = block.kind === 'table' ? block.sections.reduce((sum, { rows }) => sum + rows.length, 0) : 0;
    yield { kind: block.kind, id: block.block, count };
    if (block.kind === 'section' || block.kind === 'keep') yield* partsOf(block.blocks);
    if (block.kind === 'columns') for (const column of block.columns) yield* partsOf(column);
  }
}
