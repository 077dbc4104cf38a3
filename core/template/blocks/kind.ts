import type { Row } from '../../formula/row';
import type { ShapeOf } from '../../shape/shape';
import type { FormulaChanges, WordsChanges } from '../changes';
import type { Composer } from '../composer';
import type { Template } from '../template';
import type { Block } from '.';

/** What to put in place of the blocks that a block holds; `list`: the formula of the list whose items are in scope of them. */
export type InnerChange = (blocks: readonly Block[], list?: string) => Block[];

/** All that the core has to know of a kind of block. `Composed`: the printed forms it takes. */
export interface BlockKind<
  Kept extends { type: string; attrs: { id: string } },
  Composed extends { kind: string; block: string } | never,
> {
  /** Its form in a template. */
  shape: ShapeOf<Kept>;
  /** What people call this one in a message: "the table “Lines”". */
  words(block: Kept): string;
  /** The block with other blocks inside; itself where it holds none. */
  inner(block: Kept, change: InnerChange): Kept;
  /** The block with its own formulas changed, not those of the blocks inside. */
  mapFormulas(block: Kept, change: FormulaChanges): Kept;
  /** The block with its own words changed, not those of the blocks inside. */
  mapWords(block: Kept, change: WordsChanges): Kept;
  /** What is wrong with it besides its shape and its formulas, in sentences. */
  faults?(block: Kept, template: Template): string[];
  /** What it prints; nothing at all is an empty list. */
  compose(block: Kept, composer: Composer, row?: Row): Composed[];
}

/** Ids that stand there more than once. */
export function twice(all: readonly { id: string }[]): string[] {
  return [...new Set(all.filter(({ id }, at) => all.findIndex((each) => each.id === id) !== at).map(({ id }) => id))];
}

/** For kinds that hold no blocks, no formulas or no words. */
export const unchanged = <Same>(same: Same): Same => same;
