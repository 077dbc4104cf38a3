<script setup lang="ts">
import { draggable } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';

/**
 * What decides about the sheet stands beside it: a bracket as high as its section, with a note. A click chooses the section, and by its
 * note it is dragged whole.
 */
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
  /** How many lines of its words are shown: fewer than there are where the note below needs the room. */
  lines: number;
  isCut: boolean;
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
  const fallen = idsWithEarlierNotes();
  const found = [...within.querySelectorAll<HTMLElement>(NOTED)].map((section) => {
    const { top, height, left } = section.getBoundingClientRect();
    const isInColumn = section.closest('.column') !== null && left - around.left > around.width / 3;
    const id = section.dataset.id ?? section.querySelector<HTMLElement>('[data-id]')?.dataset.id ?? '';
    return {
      id,
      words: figures.page?.notes[id] ?? NOTES[kindOf(section)] ?? '',
      kind: kindOf(section),
      isFallen: fallen.has(id),
      top: top - around.top,
      height,
      left: isInColumn ? left - around.left - 10 : -9,
    };
  });
  notes.value = withRoom(found);
}

/** Gives each note outside of the sheet its lines: as many as it has where there is room up to the next one, one at least. */
function withRoom(found: readonly Omit<Note, 'wordsTop' | 'lines' | 'isCut'>[]): Note[] {
  let free = -Infinity;
  return found.map((note, at) => {
    const all = Math.min(MOST_LINES, Math.ceil(note.words.length / LETTERS));
    if (note.left > 0) return { ...note, wordsTop: note.top, lines: all, isCut: false };
    const wordsTop = Math.max(note.top, free);
    const next = found.slice(at + 1).find(({ left }) => left <= 0)?.top ?? Infinity;
    const lines = Math.max(1, Math.min(all, Math.floor((next - wordsTop) / LINE)));
    free = wordsTop + (lines + (note.isFallen ? 1 : 0)) * LINE;
    return { ...note, wordsTop, lines, isCut: lines < all };
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
/** Ends the dragging of notes that are gone. */
const stops = new WeakMap<Element, () => void>();
const vDragged = {
  mounted: (element: HTMLElement, { value: kind }: { value: string }) =>
    stops.set(
      element,
      draggable({
        element,
        // What is printed otherwise goes with its section.
        canDrag: () => store.editor?.isEditable === true && kind !== 'otherwise',
        getInitialData: () => ({ blocks: element.dataset.section }),
      }),
    ),
  unmounted: (element: HTMLElement) => stops.get(element)?.(),
};
const isChosen = (id: string) => store.chosen.some((part) => part.id === id);
</script>

<template>
  <div class="margin-notes">
    <template v-for="{ id, words, kind, isFallen, top, height: long, left, wordsTop, lines, isCut } in notes" :key="id">
      <i
        :class="[kind, { chosen: isChosen(id) }]"
        :style="{ top: `${top}px`, height: `${long}px`, left: `${left}px` }"
        aria-hidden="true"
      ></i>
      <button
        v-if="words"
        v-tooltip.left="left > 0 || isCut || words.length > MOST_LINES * LETTERS ? words : undefined"
        v-dragged="kind"
        type="button"
        :data-section="id"
        :aria-label="words"
        :class="[kind, { chosen: isChosen(id), inside: left > 0, fallen: isFallen }]"
        :style="
          left > 0
            ? { top: `${top}px`, left: `${left}px`, height: `${long}px` }
            : { top: `${wordsTop}px`, right: 'calc(100% + 14px)' }
        "
        @click="store.choose(id)"
      >
        <span class="words" :class="{ 'in-a-line': lines === 1 }" :style="{ '-webkit-line-clamp': lines }">{{
          left > 0 ? '' : words
        }}</span><span v-if="isFallen" class="mark">words to look at</span>
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
}
.in-a-line {
  display: block;
  text-overflow: ellipsis;
  white-space: nowrap;
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
