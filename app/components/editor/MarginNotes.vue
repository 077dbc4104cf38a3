<script setup lang="ts">
/** What decides about the sheet stands beside it: a bracket as high as its section, with a note. A click chooses the section. */
const { sheet: within, zoom } = defineProps<{ sheet: HTMLElement; zoom: number }>();
const store = useSheetStore();
const draft = useDraftStore();
const figures = useFiguresStore();

interface Note {
  id: string;
  words: string;
  kind: string;
  top: number;
  height: number;
  /** Where its bracket stands, from the sheet's left edge; negative outside of it. */
  left: number;
  /** Where its words stand: lower than the bracket where the note above needs the room. */
  wordsTop: number;
}
const notes = ref<Note[]>([]);
const LINE = 15;
/** About how many letters of a note stand in a line. */
const LETTERS = 17;

function measure(): void {
  const around = within.getBoundingClientRect();
  let free = -Infinity;
  notes.value = [...within.querySelectorAll<HTMLElement>('section[data-note]')].map((section) => {
    const { top, height, left } = section.getBoundingClientRect();
    const isInColumn = section.closest('.column') !== null && left - around.left > around.width / 3;
    const words = section.dataset.note!;
    const wordsTop = Math.max(top - around.top, isInColumn ? -Infinity : free);
    if (!isInColumn) free = wordsTop + Math.ceil(words.length / LETTERS) * LINE + 4;
    return {
      id: section.dataset.id!,
      words,
      kind: section.dataset.kind!,
      top: top - around.top,
      height,
      left: isInColumn ? left - around.left - 10 : -9,
      wordsTop,
    };
  });
}
const { width, height } = useElementSize(() => within);
// Measured at rest: typing does not wait for it.
watchDebounced(
  [width, height, () => zoom, () => draft.template?.layout, () => figures.page, () => store.chosen],
  measure,
  {
    debounce: 60,
    immediate: true,
  },
);
const isChosen = (id: string) => store.chosen.some((part) => part.id === id);
</script>

<template>
  <div class="margin-notes">
    <template v-for="{ id, words, kind, top, height: long, left, wordsTop } in notes" :key="id">
      <i
        :class="[kind, { chosen: isChosen(id) }]"
        :style="{ top: `${top}px`, height: `${long}px`, left: `${left}px` }"
        aria-hidden="true"
      ></i>
      <button
        v-tooltip.left="left > 0 ? words : undefined"
        type="button"
        :aria-label="words"
        :class="[kind, { chosen: isChosen(id), inside: left > 0 }]"
        :style="
          left > 0
            ? { top: `${top}px`, left: `${left}px`, height: `${long}px` }
            : { top: `${wordsTop}px`, right: 'calc(100% + 14px)' }
        "
        @click="store.choose(id)"
      >
        {{ left > 0 ? '' : words }}
      </button>
    </template>
  </div>
</template>

<style scoped>
.margin-notes {
  position: absolute;
  inset: 0;
  z-index: 1;
  pointer-events: none;
}
i {
  position: absolute;
  width: 6px;
  border: 1px solid var(--slate);
  border-right: 0;
}
button {
  position: absolute;
  width: 104px;
  padding: 0;
  background: none;
  border: 0;
  color: var(--slate);
  font: italic 12px/15px var(--serif);
  text-align: end;
  cursor: pointer;
  pointer-events: auto;
}
/* In a column there is no margin: the bracket alone stands before it. */
.inside {
  width: 8px;
}
.forEach {
  border-color: var(--verdigris);
  color: var(--verdigris);
}
.keepTogether {
  border-color: var(--stone-400);
  color: var(--ink-quiet);
}
i.chosen {
  border-width: 2px;
  border-right: 0;
}
button.chosen {
  font-weight: 600;
}
</style>
