<script setup lang="ts">
import { combine } from '@atlaskit/pragmatic-drag-and-drop/combine';
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import {
  attachClosestEdge,
  extractClosestEdge,
  type Edge,
} from '@atlaskit/pragmatic-drag-and-drop-hitbox/closest-edge';
import { outlineOf } from '~/editor/outline';

/** The blocks of the sheet by their first words: a click goes there, dragging or Alt with an arrow moves one. */
const draft = useDraftStore();
const sheet = useSheetStore();
const figures = useFiguresStore();
/** Listed at rest: typing does not wait for it. */
const layout = refDebounced(
  computed(() => draft.template?.layout),
  150,
);
const entries = computed(() => (layout.value ? outlineOf(layout.value, figures.page?.notes) : []));
const chosen = computed(() => sheet.chosen.map(({ id }) => id));
/** Where an entry that is dragged would go. */
const over = shallowRef<{ id: string; edge: Edge | null }>();
/** An entry that is dragged beside another one. */
const vReordered = {
  mounted(element: HTMLElement, { value: id }: { value: string }) {
    const here = (self: { data: Record<string | symbol, unknown> }) => extractClosestEdge(self.data);
    stops.set(
      element,
      combine(
        draggable({ element, getInitialData: () => ({ blocks: id }), canDrag: () => !!sheet.editor?.isEditable }),
        dropTargetForElements({
          element,
          canDrop: ({ source }) => 'blocks' in source.data && source.data.blocks !== id,
          getData: ({ input }) => attachClosestEdge({}, { input, element, allowedEdges: ['top', 'bottom'] }),
          onDrag: ({ self }) => (over.value = { id, edge: here(self) }),
          onDragLeave: () => (over.value = undefined),
          onDrop: ({ source, self }) => {
            over.value = undefined;
            sheet.moveBeside(String(source.data.blocks), id, here(self) === 'top' ? 'before' : 'after');
          },
        }),
      ),
    );
  },
  unmounted(element: HTMLElement) {
    stops.get(element)?.();
  },
};
const stops = new WeakMap<HTMLElement, () => void>();
const isChosen = (id: string) => chosen.value.includes(id);
</script>

<template>
  <ol v-if="entries.length > 0" class="outline">
    <li v-for="{ id, kind, words, depth } in entries" :key="id">
      <button
        v-reordered="id"
        type="button"
        :class="over?.id === id ? `over-${over.edge}` : undefined"
        :style="{ paddingInlineStart: `${14 + depth * 14}px` }"
        :aria-current="isChosen(id) ? 'true' : undefined"
        @click="sheet.choose(id)"
        @keydown.alt.up.prevent="sheet.moveById(id, -1)"
        @keydown.alt.down.prevent="sheet.moveById(id, 1)"
      >
        <span v-if="words">{{ words }}</span>
        <span class="quiet">{{ kind }}</span>
      </button>
    </li>
  </ol>
  <EmptyNote v-else title="Nothing on the sheet yet">Click on it and write, or put something in.</EmptyNote>
</template>

<style scoped>
.outline {
  padding: 8px 0 24px;
}
button {
  display: flex;
  gap: 8px;
  justify-content: space-between;
  width: 100%;
  padding: 3px 14px;
  background: none;
  border: 0;
  color: var(--ink);
  text-align: start;
  cursor: pointer;
}
.over-top {
  box-shadow: inset 0 2px var(--verdigris);
}
.over-bottom {
  box-shadow: inset 0 -2px var(--verdigris);
}
button:hover {
  background: var(--stone-50);
}
button[aria-current] {
  background: var(--verdigris-50);
  box-shadow: inset 3px 0 var(--verdigris);
}
span:first-child:not(.quiet) {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.quiet {
  flex: none;
  font-size: 11.5px;
}
</style>
