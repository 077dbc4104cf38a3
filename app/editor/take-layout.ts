import type { Node } from '@tiptap/pm/model';
import { Selection, type EditorState, type Transaction } from '@tiptap/pm/state';

/** Marks a change that came from the draft: it is no new one. */
export const FROM_DRAFT = 'fromDraft';

/** Whether a transaction changes the sheet itself: what comes from the draft is taken as it is. */
export const isOwnChange = (transaction: Transaction): boolean =>
  transaction.docChanged && transaction.getMeta(FROM_DRAFT) === undefined;

/**
 * The change that makes a document another one, with nothing replaced but the blocks that differ. The caret goes to where the two
 * begin to differ. Undefined where they are the same.
 */
export function takeDoc(state: EditorState, wanted: Node): Transaction | undefined {
  const { doc, tr } = state;
  const start = doc.content.findDiffStart(wanted.content);
  if (start === null) return undefined;
  const isAlike = doc.childCount === wanted.childCount && shape(doc) === shape(wanted);
  if (isAlike)
    eachRegion(
      doc,
      wanted,
      (from, to, blocks) => void tr.replaceWith(tr.mapping.map(from), tr.mapping.map(to), blocks),
    );
  if (!tr.doc.eq(wanted)) tr.replaceWith(0, tr.doc.content.size, wanted.content);
  const end = doc.content.findDiffEnd(wanted.content)?.b ?? start;
  const place = Math.min(Math.max(start, end), tr.doc.content.size);
  return tr
    .setSelection(Selection.near(tr.doc.resolve(place), -1))
    .setMeta(FROM_DRAFT, true)
    .setMeta('addToHistory', false);
}

const shape = (doc: Node) => doc.content.content.map(({ type }) => type.name).join();

/** The blocks of each region that differ, with what stands in their place. */
function eachRegion(doc: Node, wanted: Node, replace: (from: number, to: number, blocks: Node[]) => void): void {
  doc.forEach((region, offset, at) => {
    const [before, after] = [region.content.content, wanted.child(at).content.content];
    let first = 0;
    while (first < before.length && first < after.length && before[first]!.eq(after[first]!)) first++;
    let [last, lastAfter] = [before.length, after.length];
    while (last > first && lastAfter > first && before[last - 1]!.eq(after[lastAfter - 1]!))
      [last, lastAfter] = [last - 1, lastAfter - 1];
    if (first === last && first === lastAfter) return;
    const place = (end: number) => offset + 1 + before.slice(0, end).reduce((sum, { nodeSize }) => sum + nodeSize, 0);
    replace(place(first), place(last), after.slice(first, lastAfter));
  });
}
