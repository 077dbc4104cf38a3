import { Node } from '@tiptap/core';
import { VueNodeViewRenderer } from '@tiptap/vue-3';
import ComputedBlock from './printed/ComputedBlock.vue';
import { sheetExtensions } from './extensions';

/** What the sheet is made of, with the look of what is computed as a whole. */
export const viewedExtensions = sheetExtensions.map((extension) =>
  extension instanceof Node && extension.config.atom && extension.config.group === 'block'
    ? extension.extend({ addNodeView: () => VueNodeViewRenderer(ComputedBlock) })
    : extension,
);
