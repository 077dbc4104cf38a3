import { richBlocks, type RichRun } from '../../rich/rich-text';
import { boolean, formula, type InferType } from '../../shape/shape';
import type { Run } from '../composed';
import { attrs, leaf } from '../node';
import type { ComposedHeading } from './heading';
import { unchanged, type BlockKind } from './kind';
import type { ComposedList } from './lists';
import type { ComposedParagraph } from './paragraph';

const richAttrs = attrs({ formula: formula().required(), mayBeBlank: boolean() });

/** A formatted text of the record; plain text prints as paragraphs. */
export interface RichText {
  type: 'richText';
  attrs: InferType<typeof richAttrs>;
}

export const richText: BlockKind<RichText, ComposedParagraph | ComposedHeading | ComposedList> = {
  shape: leaf('richText', richAttrs),
  words: () => 'a formatted text',
  inner: unchanged,
  mapFormulas: (block, change) => ({
    ...block,
    attrs: { ...block.attrs, formula: change.formula(block.attrs.formula) },
  }),
  mapWords: unchanged,
  compose({ attrs: { id, formula: source, mayBeBlank } }, composer, row) {
    const { key, value } = composer.read({ id, formula: source, block: id, row });
    const paragraph = (runs: Run[]): ComposedParagraph => ({ kind: 'paragraph', block: id, align: 'start', runs });
    if (value.type !== 'rich') {
      const runs = composer.print({ id, formula: source, block: id, row, mayBeBlank });
      return runs.length === 0 ? [] : [paragraph(runs)];
    }
    const set = (runs: readonly RichRun[]) =>
      runs.map((run): Run => (run.kind === 'text' ? { ...run, value: key } : run));
    return richBlocks(composer.readable(value.html, id, key)).map((each) => {
      if (each.kind === 'list')
        return { kind: 'list', block: id, items: each.items.map(set), ...(each.numbered && { start: 1 }) };
      return each.kind === 'heading'
        ? { kind: 'heading', block: id, level: 3, runs: set(each.runs) }
        : paragraph(set(each.runs));
    });
  },
};
