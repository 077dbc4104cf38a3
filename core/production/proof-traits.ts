import { everyComposed } from './composed-blocks';
import type { Composition } from './composition';

type Seen = Pick<Composition, 'document' | 'leftOut' | 'findings' | 'currency' | 'edition'>;

/** What tells one document of a template from another: which sections print, how many rows, currency, edition, what stops it. */
export function* proofTraits({ document, leftOut, findings, currency, edition }: Seen): Generator<string> {
  let rows = 0;
  for (const block of everyComposed(document.body)) {
    if (block.kind === 'section') yield `section ${block.block}`;
    if (block.kind === 'table') rows += block.sections.reduce((sum, section) => sum + section.rows.length, 0);
  }
  for (const { block } of leftOut) yield `left out ${block}`;
  yield `rows ${rows < 3 ? rows : `2^${Math.floor(Math.log2(rows))}`}`;
  yield `currency ${currency ?? ''}`;
  yield `edition ${edition}`;
  for (const { severity, title } of findings) if (severity !== 'notes') yield `${severity} ${title}`;
}
