<script setup lang="ts">
import { useSortable } from '@vueuse/integrations/useSortable';
import type { SheetFormula } from '#core/sheet/formulas';
import type { SheetView } from '#core/sheet/view';

/** The figures of the lines, of a list's rows, or of the document: in the sheet's order, which can be changed by hand. */
const {
  title,
  note,
  entries,
  fixed = 0,
  view,
  selected,
  row,
  rows,
  pointed,
} = defineProps<{
  title: string;
  note: string;
  entries: readonly SheetFormula[];
  /** How many of them stay on top: the list's own formula is no figure of its rows. */
  fixed?: number;
  view: SheetView | undefined;
  selected: string | undefined;
  row: number;
  /** What the rows are called that values can be shown for; none for figures of the document. */
  rows: readonly string[];
  pointed: string | undefined;
}>();
const emit = defineEmits<{
  select: [key: string | undefined];
  write: [key: string, formula: string];
  move: [from: number, to: number];
  add: [];
  help: [];
  point: [key: string | undefined];
  row: [row: number];
}>();

const list = useTemplateRef<HTMLElement>('list');
useSortable(list, [], {
  handle: '.handle',
  draggable: '.movable',
  animation: 120,
  onUpdate: ({ oldDraggableIndex: oldIndex, newDraggableIndex: newIndex, item, from }) => {
    // The order is the store's to change; what was dragged goes back to where it was until it has.
    if (oldIndex === undefined || newIndex === undefined) return;
    item.remove();
    from.insertBefore(item, from.children[oldIndex + fixed] ?? null);
    emit('move', oldIndex, newIndex);
  },
});

/** Alt with an arrow moves the figure that has the focus, as dragging does. */
function moveByKey(event: KeyboardEvent, at: number): void {
  const to = at + (event.key === 'ArrowUp' ? -1 : 1);
  if (at < fixed || to < fixed || to >= entries.length) return;
  event.preventDefault();
  emit('move', at - fixed, to - fixed);
}

function lit(key: string): 'uses' | 'used' | undefined {
  const figure = pointed === undefined ? undefined : view?.figures[pointed];
  if (figure?.uses.includes(key)) return 'uses';
  return figure?.usedBy.includes(key) ? 'used' : undefined;
}
</script>

<template>
  <section class="group" :aria-label="title">
    <header>
      <h2>{{ title }}</h2>
      <p class="quiet">{{ note }}</p>
      <span v-if="rows.length > 0" class="rows">
        <span class="quiet">values for</span>
        <PickOne
          label="Values for"
          :value="Math.min(row, rows.length - 1)"
          :options="rows.map((each, at) => ({ value: at, label: each }))"
          @choose="emit('row', $event)"
        />
      </span>
    </header>
    <ul ref="list">
      <FigureRow
        v-for="(entry, at) in entries"
        :key="entry.key"
        :class="{ movable: at >= fixed }"
        :entry="entry"
        :view="view?.figures[entry.key]"
        :row="row"
        :open="selected === entry.key"
        :lit="lit(entry.key)"
        @open="emit('select', entry.key)"
        @close="emit('select', undefined)"
        @write="emit('write', entry.key, $event)"
        @help="emit('help')"
        @point="emit('point', $event ? entry.key : undefined)"
        @keydown.alt.up="moveByKey($event, at)"
        @keydown.alt.down="moveByKey($event, at)"
      />
    </ul>
    <button type="button" class="add" @click="emit('add')">Add a figure</button>
  </section>
</template>

<style scoped>
.group {
  padding-bottom: 8px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 10px;
  padding: 14px 14px 6px 33px;
  border-bottom: 1px solid var(--ink);
}
h2 {
  font: 600 15px/20px var(--serif);
  white-space: nowrap;
}
header p {
  flex: 1;
  font-size: 12px;
}
.rows {
  display: flex;
  align-items: baseline;
  gap: 6px;
  font-size: 12px;
}
.rows :deep(.p-select) {
  max-width: 200px;
}
.add {
  margin: 6px 0 0 33px;
  padding: 0;
  background: none;
  border: 0;
  color: var(--verdigris);
  font-size: 12px;
  cursor: pointer;
}
</style>
