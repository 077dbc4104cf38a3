<script setup lang="ts">
import { Node, type JSONContent } from '@tiptap/core';
import StarterKit from '@tiptap/starter-kit';
import { EditorContent, useEditor } from '@tiptap/vue-3';
import type { Inline, WordingInline } from '#core/template/inlines';
import type { TextInline } from '#core/template/inlines/text';
import { colour, link, quiet } from '~/editor/marks';
import { withoutUnsaid } from '~/editor/without-unsaid';
import type { Proof } from '~/stores/proof';

/** Other words for one text of a document. The values in it stay values: they can be moved and deleted, not typed over. */
const { content, values } = defineProps<{
  content: readonly Inline[];
  values: Proof['values'];
  busy: boolean;
}>();
const emit = defineEmits<{ close: []; save: [content: WordingInline[]] }>();

/** Whatever in a text is no text of its own: values and page fields. */
const kept = (name: string) =>
  Node.create({
    name,
    group: 'inline',
    inline: true,
    atom: true,
    addAttributes: () => ({ id: { default: null } }),
    renderHTML: ({ node }) => ['span', { class: 'value' }, values[String(node.attrs.id)]?.text || `(${name})`],
  });
const editor = useEditor({
  content: {
    type: 'doc',
    content: [
      {
        type: 'paragraph',
        content: content.map((each) =>
          each.type === 'value' ? { type: 'value', attrs: { id: each.attrs.id } } : each,
        ) as never,
      },
    ],
  },
  autofocus: 'end',
  extensions: [
    StarterKit.configure({
      blockquote: false, bulletList: false, code: false, codeBlock: false, heading: false, horizontalRule: false, link: false,
      listItem: false, orderedList: false, strike: false,
    }), // prettier-ignore
    quiet,
    colour,
    link,
    ...['value', 'pageNumber', 'pageCount', 'documentTitle'].map(kept),
  ],
  editorProps: { attributes: { 'aria-label': 'Words', 'aria-multiline': 'true', role: 'textbox' } },
});

/** A part of the text in the form that is kept: of what is no text, what it is alone. */
function said({ type, text, marks, attrs }: JSONContent): WordingInline {
  if (type === 'value') return { type, attrs: { id: String(attrs!.id) } };
  if (type !== 'text') return { type: type as 'hardBreak' };
  const kept = marks?.map((mark) => ({ type: mark.type, ...(mark.attrs && { attrs: withoutUnsaid(mark.attrs) }) }));
  return { type, text: text!, ...(kept && kept.length > 0 && { marks: kept as TextInline['marks'] }) };
}

function save(): void {
  const { content: paragraphs = [] } = editor.value!.getJSON();
  const inlines = paragraphs.flatMap(({ content: each = [] }, at): JSONContent[] => [
    ...(at === 0 ? [] : [{ type: 'hardBreak' }]),
    ...each,
  ]);
  emit('save', inlines.map(said));
}
</script>

<template>
  <Dialog
    visible
    modal
    header="Words for this document"
    :style="{ width: '640px' }"
    :draggable="false"
    @update:visible="emit('close')"
  >
    <form @submit.prevent="save" @keydown.ctrl.enter.stop.prevent="save">
      <EditorContent :editor="editor" class="text" />
      <p class="quiet">
        What is underlined comes from the record or is computed; it can be moved or deleted. The template stays as it
        is.
      </p>
      <footer>
        <Button type="button" label="Cancel" severity="secondary" text @click="emit('close')" />
        <Button type="submit" label="Use these words" :loading="busy" />
      </footer>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 10px;
}
.text :deep(.ProseMirror) {
  min-height: 110px;
  max-height: 340px;
  padding: 9px 11px;
  overflow: auto;
  border: 1px solid var(--hairline);
  border-radius: 3px;
  outline: none;
  font: 14px/22px var(--sans);
}
.text :deep(.ProseMirror-focused) {
  border-color: var(--verdigris);
}
.text :deep(.value) {
  border-bottom: 1px dotted var(--verdigris);
}
</style>
