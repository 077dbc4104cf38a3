import { sentence } from '../../formula/value';
import { formula, listOf, oneOf, shape, type ShapeOf, type InferType } from '../../shape/shape';
import { attrs, noteAttrs } from '../node';
import { MARGIN_NOTES } from '../margin-note';
import { anyBlock } from './any-block';
import type { Block } from '.';
import { unchanged, type BlockKind } from './kind';
import { sectionOf, type ComposedSection } from './section';

const sectionAttrs = attrs({ when: formula().required(), ...noteAttrs });

/** What prints while the condition holds, and what prints otherwise. */
export interface Branch {
  type: 'then' | 'otherwise';
  attrs: { id: string };
  content?: Block[];
}

/** Blocks that print only when a formula holds. */
export interface WhenSection {
  type: 'whenSection';
  attrs: InferType<typeof sectionAttrs>;
  /** The blocks for when it holds; and, where there are any, those for when it does not. */
  content: Branch[];
}

const branchShape: ShapeOf<Branch> = shape({
  type: oneOf(['then', 'otherwise']).required(),
  attrs: attrs({}),
  content: listOf(anyBlock, 10_000),
}).required();

const sectionShape: ShapeOf<WhenSection> = shape({
  type: oneOf(['whenSection']).required(),
  attrs: sectionAttrs,
  content: listOf(branchShape, 2).min(1).required(),
}).required();

export const whenSection: BlockKind<WhenSection, ComposedSection> = {
  shape: sectionShape,
  words: ({ attrs: { note, when } }) => `the section “${note ?? when}”`,
  inner: (block, change) => ({
    ...block,
    content: block.content.map((each) => (each.content ? { ...each, content: change(each.content) } : each)),
  }),
  mapFormulas: (block, change) => ({ ...block, attrs: { ...block.attrs, when: change.formula(block.attrs.when) } }),
  mapWords: unchanged,
  faults(block) {
    const { content } = block;
    const order = content.map(({ type }) => type).join();
    return order === 'then' || order === 'then,otherwise'
      ? []
      : [`${sentence(this.words(block))} has one “then”, and one “otherwise” after it or none.`];
  },
  compose({ attrs: { id, when, note = when }, content }, composer, row) {
    const blocksOf = (type: Branch['type']) => content.filter((each) => each.type === type);
    const printed = (branches: readonly Branch[]) => branches.flatMap((each) => composer.blocks(each.content, row));
    if (composer.chooses(id, when, id, row)) return sectionOf(id, MARGIN_NOTES.when(note), printed(blocksOf('then')));
    const otherwise = blocksOf('otherwise');
    if (otherwise.length > 0) return sectionOf(id, MARGIN_NOTES.unless(note), printed(otherwise));
    composer.leaveOut(id, note);
    return [];
  },
};
