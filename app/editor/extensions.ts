import type { Extensions } from '@tiptap/core';
import StarterKit from '@tiptap/starter-kit';
import { caretOfClicks } from './caret';
import { KINDS } from './kinds';
import { leftOutSections } from './left-out';
import { colour, link, quiet } from './marks';
import { partIds } from './part-ids';
import { wholeGrids } from './whole-grids';
import { regions, sheet } from './regions';

/** What the sheet is made of. Its history is the draft's, which has the figure sheet in it too. */
export const sheetExtensions: Extensions = [
  StarterKit.configure({
    document: false,
    paragraph: false,
    heading: false,
    bulletList: false,
    orderedList: false,
    listItem: false,
    listKeymap: false,
    blockquote: false,
    code: false,
    codeBlock: false,
    horizontalRule: false,
    strike: false,
    link: false,
    trailingNode: false,
    undoRedo: false,
    dropcursor: { class: 'drop-mark', color: 'var(--verdigris)', width: 2 },
  }),
  sheet,
  ...regions,
  ...KINDS,
  quiet,
  colour,
  link,
  partIds,
  caretOfClicks,
  wholeGrids,
  leftOutSections,
];
