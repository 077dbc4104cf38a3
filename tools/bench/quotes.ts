import { compose, type ComposeContext } from '../../core/compose/compose';
import type { Composition } from '../../core/compose/composition';
import type { RecordSnapshot } from '../../core/record/snapshot';
import type { Template } from '../../core/template/template';
import { shipped } from '../../demo/shipped';
import glasshouseQuote from '../../demo/templates/glasshouse-quote.json';
import { demoSchema, demoSnapshot, withFields } from '../../tests/demo-snapshot';

const context: ComposeContext = {
  schema: demoSchema,
  pins: shipped,
  issueDate: '2026-11-23',
  edition: 'en',
  plan: 'file',
};

/** The demo's longest quote cut to a number of lines; `word` is put into its name, so that every quote is unique. */
export function quote(lines: number, word: string): RecordSnapshot {
  const deal = demoSnapshot('D-1203');
  return withFields(deal, {
    name: `Research house, ${word}`,
    lines: (deal.fields.lines as RecordSnapshot[]).slice(0, lines),
  });
}

/** Composes a quote as the press does. */
export function composed(snapshot: RecordSnapshot): Composition {
  return compose(glasshouseQuote as unknown as Template, snapshot, context);
}
