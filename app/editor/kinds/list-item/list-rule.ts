import { InputRule } from '@tiptap/core';
import type { NodeType } from '@tiptap/pm/model';
import { TextSelection } from '@tiptap/pm/state';

/** What is typed at the start of a line makes it the first item of a list. */
export const listInputRule = (find: RegExp, list: NodeType): InputRule =>
  new InputRule({
    find,
    handler: ({ state: { tr, doc, schema }, range }) => {
      const $start = doc.resolve(range.from);
      const { parent } = $start;
      if (parent.type.name !== 'paragraph') return null;
      const text = parent.content.cut(range.to - $start.start());
      const item = schema.nodes.listItem!.create(null, text);
      tr.replaceWith($start.before(), $start.after(), list.create({ id: parent.attrs.id as string }, item));
      tr.setSelection(TextSelection.create(tr.doc, $start.before() + 2));
      return undefined;
    },
  });
