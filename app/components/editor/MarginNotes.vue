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
  /** Its own words were written for another formula. */
  isFallen: boolean;
  top: number;
  height: number;
  /** Where its bracket stands, from the sheet's left edge; negative outside of it. */
  left: number;
  /** Where its words stand: lower than the bracket where the note above needs the room. */
  wordsTop: number;
}
const notes = ref<Note[]>([]);
const NOTED = 'section[data-note], [data-branch="otherwise"], [data-kind="pageBreak"], [data-kind="lineTable"]';
/** What is the same wherever it stands. */
const NOTES: Readonly<Record<string, string>> = {
  keepTogether: 'kept together',
  otherwise: 'otherwise',
  pageBreak: 'on a new page',
};
const kindOf = ({ dataset }: HTMLElement) => dataset.kind ?? dataset.branch ?? '';
const LINE = 15;
/** About how many letters of a note stand in a line. */
const LETTERS = 17;
const MOST_LINES = 4;

/** Sections whose own words were written for another formula. */
function idsWithEarlierNotes(): ReadonlySet<string> {
  const found = new Set<string>();
  store.editor?.state.doc.descendants((node) => {
    if (node.attrs.earlierNote) found.add(node.attrs.id as string);
    return !node.isTextblock;
  });
  return found;
}

function measure(): void {
  const around = within.getBoundingClientRect();
  let free = -Infinity;
  const fallen = idsWithEarlierNotes();
  notes.value = [...within.querySelectorAll<HTMLElement>(NOTED)].map((section) => {
    const { top, height, left } = section.getBoundingClientRect();
    const isInColumn = section.closest('.column') !== null && left - around.left > around.width / 3;
    const id = section.dataset.id ?? section.querySelector<HTMLElement>('[data-id]')?.dataset.id ?? '';
    const words = figures.page?.notes[id] ?? NOTES[kindOf(section)] ?? '';
    const wordsTop = Math.max(top - around.top, isInColumn ? -Infinity : free);
    const lines = Math.min(MOST_LINES, Math.ceil(words.length / LETTERS)) + (fallen.has(id) ? 1 : 0);
    if (!isInColumn) free = wordsTop + lines * LINE + 4;
    return {
      id,
      words,
      kind: kindOf(section),
      isFallen: fallen.has(id),
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
    <template v-for="{ id, words, kind, isFallen, top, height: long, left, wordsTop } in notes" :key="id">
      <i
        :class="[kind, { chosen: isChosen(id) }]"
        :style="{ top: `${top}px`, height: `${long}px`, left: `${left}px` }"
        aria-hidden="true"
      ></i>
      <button
        v-if="words"
        v-tooltip.left="left > 0 || words.length > MOST_LINES * LETTERS ? words : undefined"
        type="button"
        :aria-label="words"
        :class="[kind, { chosen: isChosen(id), inside: left > 0, fallen: isFallen }]"
        :style="
          left > 0
            ? { top: `${top}px`, left: `${left}px`, height: `${long}px` }
            : { top: `${wordsTop}px`, right: 'calc(100% + 14px)' }
        "
        @click="store.choose(id)"
      >
        <span class="words">{{ left > 0 ? '' : words }}</span><span v-if="isFallen" class="mark">words to look at</span>
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
/* Rows and blocks that are repeated. */
.lineTable,
.forEach {
  border-color: var(--verdigris);
  color: var(--verdigris);
}
.keepTogether {
  border-color: var(--stone-400);
  color: var(--ink-quiet);
}
.otherwise,
.pageBreak {
  border-color: var(--stone-400);
  color: var(--ink-quiet);
}
.words {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 4;
}
.mark {
  display: block;
  color: var(--brass-text);
  font: 10.5px/14px var(--sans);
}
i.chosen {
  border-width: 2px;
  border-right: 0;
}
button.chosen {
  font-weight: 600;
}
</style>
