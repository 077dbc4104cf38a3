import type { Node } from '@tiptap/pm/model';
import type { EditorView } from '@tiptap/pm/view';
import { isBlock, partOf } from './commands';

/** Where blocks that are dragged would go: beside which one, and the line that shows it, in the window's pixels. */
export interface DropPlace {
  id: string;
  side: 'before' | 'after';
  line: { left: number; top: number; width: number };
}

/** The block under a place of the window, the innermost one; the nearest above or below where none is there. */
export function blockAt(view: EditorView, x: number, y: number): { id: string; element: HTMLElement } | undefined {
  const under = document.elementFromPoint(x, y);
  if (!under || !view.dom.contains(under)) return undefined;
  for (let element = under.closest<HTMLElement>('[data-id]'); element;) {
    const id = element.dataset.id!;
    const part = partOf(view.state.doc, id);
    if (part && isBlock(part.node)) return { id, element };
    element = element.parentElement?.closest<HTMLElement>('[data-id]') ?? null;
  }
  return undefined;
}

/** Where blocks would go that are let go of here; undefined where there is no block to go beside. */
export function dropPlaceAt(view: EditorView, x: number, y: number): DropPlace | undefined {
  const found = blockAt(view, x, y) ?? nearestInside(view, y);
  if (!found) return undefined;
  const { left, top, width, height, bottom } = found.element.getBoundingClientRect();
  const side = y < top + height / 2 ? 'before' : 'after';
  return { id: found.id, side, line: { left, width, top: side === 'before' ? top - 2 : bottom + 1 } };
}

/** Of the blocks that stand on the page itself, the one that is nearest to a height. */
function nearestInside(view: EditorView, y: number): { id: string; element: HTMLElement } | undefined {
  let best: { id: string; element: HTMLElement; away: number } | undefined;
  view.state.doc.forEach((region: Node) => {
    region.forEach((block) => {
      const id = block.attrs.id as string;
      const element = view.dom.querySelector<HTMLElement>(`[data-id="${CSS.escape(id)}"]`);
      if (!element) return;
      const { top, bottom } = element.getBoundingClientRect();
      const away = y < top ? top - y : Math.max(0, y - bottom);
      if (!best || away < best.away) best = { id, element, away };
    });
  });
  return best;
}
