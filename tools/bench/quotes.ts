import { compose, type ComposeContext } from '../../core/production/compose';
import type { Composition } from '../../core/production/composition';
import type { RecordSnapshot } from '../../core/record/snapshot';
import { shipped } from '../../demo/shipped';
import { demoPictures, demoSchema, demoSnapshot, withFields } from '../../tests/demo-snapshot';

const context: ComposeContext = {
  schema: demoSchema,
  pins: shipped,
  issueDate: '2026-11-23',
  edition: 'en',
  plan: 'file',
  registered: [],
  available: demoPictures,
};
const [glasshouseQuote, fullProposal] = shipped.templates;

const longest = demoSnapshot('D-1203');
const offered = demoSnapshot('D-1219');

/** The demo's longest quote cut, or gone on with, to a number of lines; `word` is put into its name, so that every quote is unique. */
export function quote(count: number, word: string): RecordSnapshot {
  const lines = longest.fields.lines as RecordSnapshot[];
  return withFields(longest, {
    name: `Research house, ${word}`,
    lines: Array.from({ length: count }, (_, index) => ({ ...lines[index % lines.length]!, id: `L-${index}` })),
  });
}

/** Composes a quote as the press does. */
export function composed(snapshot: RecordSnapshot): Composition {
  return compose(glasshouseQuote!, snapshot, context);
}

/** A full proposal with a photograph on its cover and a picture beside each of its items; unique by `word`. */
export function proposal(word: string): Composition {
  const deal = withFields(offered, { name: `Salad house, ${word}` });
  return compose({ ...fullProposal!, annexes: [] }, deal, context);
}
