import type { ComposedBlock } from '../../core/template/blocks';
import type { Run } from '../../core/template/composed';

/** The last page of a document has at least so many lines, as far as they are words. */
const LEAST_LINES = 5;
/** What is kept together at the end is no longer than this, in lines, or it would leave the page before it empty. */
const MOST_LINES = 24;
/** Letters of a line, about. */
const LINE = 90;

/** A document's blocks, the last of them kept together, so that no page is left with a signature or a line or two alone. */
export function keptEnd(body: readonly ComposedBlock[]): readonly ComposedBlock[] {
  let from = body.length;
  let lines = 0;
  while (from > 0 && lines < LEAST_LINES) {
    const own = linesOf(body[from - 1]!);
    if (own === undefined || lines + own > MOST_LINES) break;
    lines += own;
    from--;
  }
  while (body[from - 1]?.kind === 'heading') from--;
  const end = body.slice(from);
  return end.length < 2 ? body : [...body.slice(0, from), { kind: 'keep', block: 'end', blocks: end }];
}

/** How many lines a block takes, about; nothing for tables, and for what ends a page. */
function linesOf(block: ComposedBlock): number | undefined {
  switch (block.kind) {
    case 'paragraph':
    case 'heading':
      return linesOfRuns(block.runs);
    case 'list':
      return sumOf(block.items.map(linesOfRuns));
    case 'signature':
      return 1;
    case 'section':
    case 'keep':
      return sumOf(block.blocks.map(linesOf));
    case 'columns': {
      const columns = block.columns.map((blocks) => sumOf(blocks.map(linesOf)));
      return columns.includes(undefined) ? undefined : Math.max(0, ...columns.map(Number));
    }
    case 'divider':
    case 'space':
      return 0;
    default:
      return undefined;
  }
}

function sumOf(lines: readonly (number | undefined)[]): number | undefined {
  return lines.reduce((sum, each) => (sum === undefined || each === undefined ? undefined : sum + each), 0);
}

function linesOfRuns(runs: readonly Run[]): number {
  const letters = runs.reduce((sum, run) => sum + (run.kind === 'text' ? run.text.length : 0), 0);
  return Math.max(1, Math.ceil(letters / LINE)) + runs.filter(({ kind }) => kind === 'break').length;
}
