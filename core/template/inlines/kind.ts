import type { Row } from '../../formula/row';
import type { ShapeOf } from '../../shape/shape';
import type { FormulaChanges } from '../changes';
import type { Composer } from '../composer';
import type { Run } from '../composed';

/** All that the core has to know of a kind of inline content: of text, a value, a page field. */
export interface InlineKind<Inline, Wording = Inline> {
  shape: ShapeOf<Inline>;
  /** Its shape in a translation, which holds no formulas. */
  wordingShape: ShapeOf<Wording>;
  mapFormulas(inline: Inline, change: FormulaChanges): Inline;
  /** What of it a translator sees. How a value is computed or looks is not part of the text. */
  seen(inline: Inline): unknown;
  compose(inline: Inline, composer: Composer, block: string, row?: Row): Run[];
}

export const unchanged = <Same>(same: Same): Same => same;
