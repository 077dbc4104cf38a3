<script setup lang="ts">
import StarterKit from '@tiptap/starter-kit';
import { EditorContent, useEditor } from '@tiptap/vue-3';

/** Where a formatted text is written: bold, italic, underlined, and lists. Ctrl Enter saves it, Esc gives up. */
const { html, label, busy } = defineProps<{ html: string; label: string; busy: boolean }>();
const emit = defineEmits<{ save: [html: string]; cancel: [] }>();

const editor = useEditor({
  content: html,
  autofocus: 'end',
  extensions: [
    StarterKit.configure({ blockquote: false, code: false, codeBlock: false, horizontalRule: false, strike: false }),
  ],
  editorProps: { attributes: { 'aria-label': label, 'aria-multiline': 'true', role: 'textbox' } },
});
const save = () => editor.value && emit('save', editor.value.isEmpty ? '' : editor.value.getHTML());

const TOOLS = [
  { name: 'bold', word: 'Bold', keys: 'Ctrl B', sign: 'B' },
  { name: 'italic', word: 'Italic', keys: 'Ctrl I', sign: 'I' },
  { name: 'underline', word: 'Underline', keys: 'Ctrl U', sign: 'U' },
  { name: 'bulletList', word: 'List', keys: 'Ctrl Shift 8', sign: '•' },
  { name: 'orderedList', word: 'Numbered list', keys: 'Ctrl Shift 7', sign: '1.' },
];
function toggle(name: string): void {
  const chain = editor.value?.chain().focus();
  (name.endsWith('List') ? chain?.toggleList(name, 'listItem') : chain?.toggleMark(name))?.run();
}
</script>

<template>
  <div class="rich-input" @keydown.ctrl.enter.stop.prevent="save" @keydown.esc.stop.prevent="emit('cancel')">
    <div class="tools" role="toolbar" :aria-label="`${label}: formats`">
      <button
        v-for="{ name, word, keys, sign } in TOOLS"
        :key="name"
        v-tooltip.top="`${word} (${keys})`"
        type="button"
        :class="name"
        :aria-label="word"
        :aria-pressed="editor?.isActive(name) ?? false"
        @click="toggle(name)"
      >
        {{ sign }}
      </button>
    </div>
    <EditorContent :editor="editor" class="text" />
    <div class="act">
      <Button label="Save" size="small" :loading="busy" @click="save" />
      <Button label="Cancel" size="small" severity="secondary" text @click="emit('cancel')" />
    </div>
  </div>
</template>

<style scoped>
.rich-input {
  border: 1px solid var(--verdigris);
  border-radius: 3px;
  background: var(--sheet);
}
.tools {
  display: flex;
  gap: 2px;
  padding: 3px;
  border-bottom: 1px solid var(--hairline-soft);
}
.tools button {
  width: 26px;
  height: 24px;
  padding: 0;
  background: none;
  border: 0;
  border-radius: 3px;
  color: var(--ink-quiet);
  cursor: pointer;
}
.tools button:hover {
  background: var(--stone-100);
}
.tools [aria-pressed='true'] {
  background: var(--verdigris-50);
  color: var(--ink);
}
.bold {
  font-weight: 600;
}
.italic {
  font-style: italic;
}
.underline {
  text-decoration: underline;
}
.text :deep(.ProseMirror) {
  min-height: 90px;
  max-height: 320px;
  padding: 7px 9px;
  overflow: auto;
  outline: none;
}
.text :deep(p + *),
.text :deep(ul),
.text :deep(ol) {
  margin-top: 5px;
}
.text :deep(ul),
.text :deep(ol) {
  padding-left: 20px;
  list-style: revert;
}
.act {
  display: flex;
  gap: 6px;
  padding: 5px;
  border-top: 1px solid var(--hairline-soft);
}
</style>
