<script setup lang="ts">
import { toggleList } from '~/editor/commands';

/** Looks of the chosen text. */
const sheet = useSheetStore();
const TOOLS = [
  { mark: 'bold', word: 'Bold', keys: 'Ctrl B', sign: 'B' },
  { mark: 'italic', word: 'Italic', keys: 'Ctrl I', sign: 'I' },
  { mark: 'underline', word: 'Underline', keys: 'Ctrl U', sign: 'U' },
] as const;
const LISTS = [
  { kind: 'bulletList', word: 'List', keys: 'Ctrl Shift 8', sign: '–' },
  { kind: 'numberedList', word: 'Numbered list', keys: 'Ctrl Shift 7', sign: '1.' },
] as const;
const isOn = (name: string) => sheet.chosen.some(({ type }) => type === name);
const marks = computed(() => new Set(sheet.marks.split(',')));
const toggle = (mark: string) => sheet.editor?.chain().focus().toggleMark(mark).run();
function list(kind: (typeof LISTS)[number]['kind']): void {
  sheet.run(toggleList(kind));
  sheet.editor?.commands.focus();
}
</script>

<template>
  <div class="look-bar" role="toolbar" aria-label="Looks of the text">
    <button
      v-for="{ mark, word, keys, sign } in TOOLS"
      :key="mark"
      v-tooltip.bottom="`${word} (${keys})`"
      type="button"
      :class="mark"
      :aria-label="word"
      :aria-pressed="marks.has(mark)"
      @mousedown.prevent
      @click="toggle(mark)"
    >
      {{ sign }}
    </button>
    <button
      v-for="{ kind, word, keys, sign } in LISTS"
      :key="kind"
      v-tooltip.bottom="`${word} (${keys})`"
      type="button"
      :aria-label="word"
      :aria-pressed="isOn(kind)"
      @mousedown.prevent
      @click="list(kind)"
    >
      {{ sign }}
    </button>
  </div>
</template>

<style scoped>
.look-bar {
  display: flex;
}
button {
  min-width: 26px;
  height: 26px;
  background: none;
  border: 0;
  border-radius: 3px;
  color: var(--ink);
  cursor: pointer;
}
button:hover {
  background: var(--stone-100);
}
button[aria-pressed='true'] {
  background: var(--verdigris-100);
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
</style>
