import { Extension } from '@tiptap/core';
import { NodeSelection, Plugin, Selection } from '@tiptap/pm/state';

/**
 * A click where the page's caret stands already is no change for the browser, so the editor is not told of it. The editor's own
 * selection may be elsewhere by then: undoing and dragging change it while the focus is not on the sheet.
 */
export const caretOfClicks = Extension.create({
  name: 'caretOfClicks',
  addProseMirrorPlugins: () => [
    new Plugin({
      props: {
        handleDOMEvents: {
          click(view) {
            const { state } = view;
            const seen = document.getSelection();
            if (!seen?.isCollapsed || !seen.anchorNode || !view.dom.contains(seen.anchorNode)) return false;
            if (state.selection instanceof NodeSelection) return false;
            const caret = Selection.near(state.doc.resolve(view.posAtDOM(seen.anchorNode, seen.anchorOffset)));
            if (!caret.eq(state.selection)) view.dispatch(state.tr.setSelection(caret));
            return false;
          },
        },
      },
    }),
  ],
});
