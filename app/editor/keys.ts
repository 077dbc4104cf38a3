import { Extension, InputRule, type KeyboardShortcutCommand } from '@tiptap/core';
import { NodeSelection, type Command } from '@tiptap/pm/state';
import { setBlockType } from '@tiptap/pm/commands';
import {
  duplicateChosen,
  goToCell,
  leaveList,
  liftItem,
  moveChosen,
  partsAround,
  isBlock,
  toggleList,
} from './commands';

/** What the keys of the sheet do outside of it. */
export interface SheetActions {
  undo: () => void;
  redo: () => void;
  /** Opens the formula line at the caret. */
  writeFormula: () => void;
  /** Looks for words. */
  find: () => void;
}

/** Chooses the block around the caret, or the one around the block that is chosen. */
const chooseAround: Command = ({ selection, doc, tr }, dispatch) => {
  const inside = selection instanceof NodeSelection ? doc.resolve(selection.from) : selection.$from;
  const around = partsAround(inside).find(({ node }) => isBlock(node));
  if (!around) return false;
  dispatch?.(tr.setSelection(NodeSelection.create(doc, around.position)));
  return true;
};

const inCell: Command = ({ selection, schema, tr }, dispatch) => {
  if (selection.$from.parent.type.name !== 'gridCell') return false;
  dispatch?.(tr.replaceSelectionWith(schema.nodes.hardBreak!.create()).scrollIntoView());
  return true;
};

/** The sheet's keys, and what is typed to bring in a value. */
export const sheetKeys = (actions: SheetActions) =>
  Extension.create({
    name: 'sheetKeys',
    priority: 2_000,
    addKeyboardShortcuts() {
      const run =
        (...commands: Command[]): KeyboardShortcutCommand =>
        ({ editor }) =>
          commands.some((command) => command(editor.state, editor.view.dispatch, editor.view));
      const act = (action: () => void) => () => {
        action();
        return true;
      };
      const heading =
        (level: number): Command =>
        (state, dispatch) =>
          setBlockType(state.schema.nodes.heading!, { id: state.selection.$from.parent.attrs.id as string, level })(
            state,
            dispatch,
          );
      const plain: Command = (state, dispatch) =>
        setBlockType(state.schema.nodes.paragraph!, { id: state.selection.$from.parent.attrs.id as string })(
          state,
          dispatch,
        );
      return {
        Enter: run(leaveList, inCell),
        Backspace: run(liftItem),
        Tab: run(goToCell(1)),
        'Shift-Tab': run(goToCell(-1)),
        'Alt-ArrowUp': run(moveChosen(-1)),
        'Alt-ArrowDown': run(moveChosen(1)),
        'Mod-d': run(duplicateChosen),
        'Mod-Shift-7': run(toggleList('numberedList')),
        'Mod-Shift-8': run(toggleList('bulletList')),
        'Mod-Alt-0': run(plain),
        'Mod-Alt-1': run(heading(1)),
        'Mod-Alt-2': run(heading(2)),
        'Mod-Alt-3': run(heading(3)),
        Escape: run(chooseAround),
        'Mod-f': act(actions.find),
        'Mod-h': act(actions.find),
        'Mod-z': act(actions.undo),
        'Mod-y': act(actions.redo),
        'Mod-Shift-z': act(actions.redo),
      };
    },
    addInputRules: () => [
      new InputRule({
        find: /=\[$/,
        handler: ({ state, range }) => {
          state.tr.delete(range.from, range.to);
          // The line opens once the two signs are gone.
          queueMicrotask(actions.writeFormula);
        },
      }),
    ],
  });
