<script setup lang="ts">
import { toggleList } from '~/editor/commands';

/** Looks of the chosen text. */
const sheet = useSheetStore();
const MARKS = [
  { mark: 'bold', attrs: {}, tip: 'Bold (Ctrl B)', word: 'Bold', sign: 'B' },
  { mark: 'italic', attrs: {}, tip: 'Italic (Ctrl I)', word: 'Italic', sign: 'I' },
  { mark: 'underline', attrs: {}, tip: 'Underline (Ctrl U)', word: 'Underline', sign: 'U' },
  { mark: 'quiet', attrs: {}, tip: 'Quiet', word: 'Quiet', sign: 'A' },
  { mark: 'colour', attrs: { colour: 'accent' }, tip: 'In the accent colour', word: 'In the accent colour', sign: 'A' },
] as const;
const LISTS = [
  { kind: 'bulletList', word: 'List', keys: 'Ctrl Shift 8', sign: '–' },
  { kind: 'numberedList', word: 'Numbered list', keys: 'Ctrl Shift 7', sign: '1.' },
] as const;
const linkOpen = ref(false);
const isOn = (name: string) => sheet.chosen.some(({ type }) => type === name);
const marks = computed(() => new Set(sheet.marks.split(',')));
const toggle = (mark: string, attrs: object) => sheet.editor?.chain().focus().toggleMark(mark, attrs).run();
function list(kind: (typeof LISTS)[number]['kind']): void {
  sheet.run(toggleList(kind));
  sheet.editor?.commands.focus();
}
</script>

<template>
  <div class="look-bar" role="toolbar" aria-label="Looks of the text">
    <button
      v-for="{ mark, attrs, tip, word, sign } in MARKS"
      :key="mark"
      v-tooltip.bottom="tip"
      type="button"
      :class="mark"
      :aria-label="word"
      :aria-pressed="marks.has(mark)"
      @mousedown.prevent
      @click="toggle(mark, attrs)"
    >
      {{ sign }}
    </button>
    <button
      v-tooltip.bottom="'Link'"
      type="button"
      class="link"
      aria-label="Link"
      :aria-pressed="marks.has('link')"
      @mousedown.prevent
      @click="linkOpen = true"
    >
      <svg viewBox="0 0 16 16" width="13" height="13" aria-hidden="true">
        <path
          d="M7 9.5a3 3 0 0 0 4.2 0l2-2a3 3 0 0 0-4.2-4.2l-.8.8M9 6.5a3 3 0 0 0-4.2 0l-2 2A3 3 0 0 0 7 12.7l.8-.8"
        />
      </svg>
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
    <LazyLinkWords v-if="linkOpen" v-model:open="linkOpen" />
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
.quiet {
  color: var(--slate);
}
.colour {
  color: var(--verdigris);
  font-weight: 600;
}
.link path {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.4;
  stroke-linecap: round;
}
</style>
