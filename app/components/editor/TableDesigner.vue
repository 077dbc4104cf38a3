<script setup lang="ts">
import { combine } from '@atlaskit/pragmatic-drag-and-drop/combine';
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import {
  attachClosestEdge,
  extractClosestEdge,
  type Edge,
} from '@atlaskit/pragmatic-drag-and-drop-hitbox/closest-edge';
import type { Subject } from '#core/condition/subjects';
import type { LineTable } from '#core/template/blocks/line-table';
import { placeholderWords } from '~/editor/formula-words';

/** On the chosen line table: its columns are chosen, moved and made wider, further ones are added, and its first row is the pattern of all. */
const { frame, zoom } = defineProps<{
  /** What places are measured from. */
  frame: HTMLElement;
  zoom: number;
}>();
const sheet = useSheetStore();
const draft = useDraftStore();
const figures = useFiguresStore();
const workshop = useWorkshop();

const table = computed(() => {
  const part = sheet.chosen[0];
  return part?.type === 'lineTable' ? (part.attrs as unknown as LineTable) : undefined;
});
/** Columns as they print; those that the record leaves out are none of them. */
const printed = computed(() => {
  const block = table.value && figures.page?.blocks[table.value.id]?.find(({ kind }) => kind === 'table');
  return block?.kind === 'table' ? block.columns.map(({ id }) => id) : [];
});
const leftOut = computed(() => (table.value?.columns ?? []).filter(({ id }) => !printed.value.includes(id)));

interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}
const heads = shallowRef<(Box & { id: string })[]>([]);
const pattern = shallowRef<Box>();
const others = shallowRef<Box>();
const foot = shallowRef<Box>();
const rows = ref(0);

function measure(): void {
  const element =
    table.value && sheet.editor?.isEditable
      ? frame.querySelector<HTMLElement>(`.sheet-text [data-id="${CSS.escape(table.value.id)}"]`)
      : undefined;
  if (!element) {
    [heads.value, pattern.value, others.value, foot.value] = [[], undefined, undefined, undefined];
    return;
  }
  const around = frame.getBoundingClientRect();
  const boxOf = (each: Element): Box => {
    const { left, top, width, height } = each.getBoundingClientRect();
    return { left: left - around.left, top: top - around.top, width, height };
  };
  foot.value = boxOf(element);
  const cells = [...element.querySelectorAll('thead th')];
  // Until the table is drawn with its columns as they are, those before stay where they are, and keep the focus.
  if (cells.length !== printed.value.length) return;
  const focused = (document.activeElement as HTMLElement | null)?.dataset.column;
  heads.value = cells.map((cell, at) => ({ ...boxOf(cell), id: printed.value[at]! }));
  void keepFocus(focused);
  const lines = [...element.querySelectorAll('tbody tr:not(.group, .sum)')];
  rows.value = lines.length;
  const [first, second] = lines;
  pattern.value = first && boxOf(first);
  others.value = undefined;
  if (second) {
    const { top, left, width } = boxOf(second);
    const last = boxOf(lines.at(-1)!);
    others.value = { top, left, width, height: last.top + last.height - top };
  }
}
/** A column that is moved is put elsewhere on the page, which takes the focus away. */
async function keepFocus(id: string | undefined): Promise<void> {
  if (id === undefined) return;
  await nextTick();
  if (document.activeElement === document.body) buttonOf(id)?.focus();
}
watchDebounced([table, printed, () => draft.template?.layout, () => figures.page, () => zoom], measure, {
  debounce: 60,
  immediate: true,
});
const px = ({ left, top, width, height }: Box) => ({
  left: `${left}px`,
  top: `${top}px`,
  width: `${width}px`,
  height: `${height}px`,
});

const headingOf = (id: string) => {
  const found = table.value?.columns.find((each) => each.id === id);
  return placeholderWords(found?.heading ?? '') || (found?.counter ? 'Number of the row' : 'Without a heading');
};

/** A column that is dragged beside another one. */
const over = shallowRef<{ id: string; edge: Edge | null }>();
const vColumn = {
  mounted(element: HTMLElement, { value: id }: { value: string }) {
    stops.set(
      element,
      combine(
        draggable({ element, getInitialData: () => ({ column: id }) }),
        dropTargetForElements({
          element,
          canDrop: ({ source }) => 'column' in source.data && source.data.column !== id,
          getData: ({ input }) => attachClosestEdge({}, { input, element, allowedEdges: ['left', 'right'] }),
          onDrag: ({ self }) => (over.value = { id, edge: extractClosestEdge(self.data) }),
          onDragLeave: () => (over.value = undefined),
          onDrop: ({ source, self }) => {
            over.value = undefined;
            const all = table.value!.columns;
            const at = all.findIndex((each) => each.id === id) + (extractClosestEdge(self.data) === 'right' ? 1 : 0);
            sheet.moveColumn(table.value!.id, String(source.data.column), all[at]?.id);
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

const buttons = useTemplateRef<HTMLElement[]>('buttons');
const buttonOf = (id: string | undefined) => buttons.value?.find((each) => each.dataset.column === id);
function choose(id: string): void {
  sheet.column = id;
}
/** Moves a column by one place among all, those that are left out too. */
function shift(id: string, by: -1 | 1): void {
  const all = table.value!.columns;
  const at = all.findIndex((each) => each.id === id);
  if (at + by < 0 || at + by >= all.length) return;
  sheet.moveColumn(table.value!.id, id, by < 0 ? all[at - 1]!.id : all[at + 2]?.id);
}
function goTo(id: string, by: -1 | 1): void {
  const at = heads.value.findIndex((each) => each.id === id);
  buttonOf(heads.value[at + by]?.id)?.focus();
}
// A column that is opened by a key has the focus.
watch(
  () => sheet.column,
  async (id) => {
    await nextTick();
    if (id !== undefined && document.activeElement?.closest('.sheet-text')) buttonOf(id)?.focus();
  },
);

const { groups } = useOfferedSubjects(() => table.value?.list);
const offered = computed(() => [
  ...groups.value,
  {
    title: 'Otherwise',
    subjects: [
      { formula: FORMULA, label: 'A formula', kind: 'other' as const },
      { formula: COUNTER, label: 'The number of the row', kind: 'other' as const },
    ],
  },
]);
const FORMULA = '""';
const COUNTER = '';
async function add({ formula, label }: Subject): Promise<void> {
  const { id, list } = table.value!;
  const plain = { id: 'new', heading: '', formula: '', align: 'start' as const, width: 'content' as const };
  const made =
    formula === COUNTER
      ? { ...plain, counter: true }
      : formula === FORMULA
        ? { ...plain, heading: 'Column', formula: '""', mayBeBlank: true }
        : await workshop.column(formula, label, list);
  sheet.addTableColumn(id, made, sheet.column);
}

/** While an edge is dragged: which, and how far. */
const dragged = shallowRef<{ id: string; by: number }>();
function drag(head: Box & { id: string }, event: PointerEvent): void {
  const handle = event.currentTarget as HTMLElement;
  const from = event.clientX;
  handle.setPointerCapture(event.pointerId);
  const move = (moved: PointerEvent) => (dragged.value = { id: head.id, by: moved.clientX - from });
  const end = (ended: PointerEvent) => {
    handle.removeEventListener('pointermove', move);
    handle.removeEventListener('pointerup', end);
    dragged.value = undefined;
    if (ended.clientX !== from) setWidth(head.id, (head.width + ended.clientX - from) / whole());
  };
  handle.addEventListener('pointermove', move);
  handle.addEventListener('pointerup', end);
}
const whole = () => heads.value.reduce((sum, { width }) => sum + width, 0);
/** Gives a column a part of the table's width. */
function setWidth(id: string, part: number): void {
  const width = Math.min(0.9, Math.max(0.02, Math.round(100 * part) / 100));
  sheet.changeColumn(table.value!.id, id, { width }, 'Width of a column changed');
}
function widen(id: string, by: number): void {
  const { width } = table.value!.columns.find((each) => each.id === id)!;
  const shown = heads.value.find((each) => each.id === id)!.width / whole();
  setWidth(id, (typeof width === 'number' ? width : shown) + by);
}
</script>

<template>
  <div v-if="table" class="designer" role="group" aria-label="Columns of the table">
    <div v-if="others" class="repeated" :style="px(others)" aria-hidden="true"></div>
    <div v-if="pattern" class="pattern" :style="px(pattern)" aria-hidden="true"></div>
    <template v-for="head in heads" :key="head.id">
      <button
        ref="buttons"
        v-column="head.id"
        v-tooltip.top="`${headingOf(head.id)}: drag to move it`"
        type="button"
        class="head"
        :data-column="head.id"
        :class="[{ chosen: sheet.column === head.id }, over?.id === head.id ? `over-${over.edge}` : undefined]"
        :aria-label="`Column ${headingOf(head.id)}`"
        :aria-pressed="sheet.column === head.id"
        :style="px({ ...head, top: head.top - 18, height: 18 })"
        @click="choose(head.id)"
        @keydown.left.exact.prevent="goTo(head.id, -1)"
        @keydown.right.exact.prevent="goTo(head.id, 1)"
        @keydown.alt.left.prevent="shift(head.id, -1)"
        @keydown.alt.right.prevent="shift(head.id, 1)"
        @keydown.shift.left.exact.prevent="widen(head.id, -0.02)"
        @keydown.shift.right.exact.prevent="widen(head.id, 0.02)"
        @keydown.delete.prevent="sheet.removeColumn(table!.id, head.id)"
        @keydown.esc.prevent="sheet.chooseWhole(table!.id)"
      ></button>
      <div
        class="edge"
        aria-hidden="true"
        :class="{ dragged: dragged?.id === head.id }"
        :style="{
          left: `${head.left + head.width + (dragged?.id === head.id ? dragged.by : 0)}px`,
          top: `${head.top - 18}px`,
          height: `${18 + head.height}px`,
        }"
        @pointerdown.prevent.stop="drag(head, $event)"
      ></div>
    </template>
    <div v-if="foot" class="foot" :style="{ left: `${foot.left}px`, top: `${foot.top + foot.height}px` }">
      <SubjectPicker :groups="offered" label="Add a column" placeholder="Add a column" class="add" @choose="add" />
      <i v-if="pattern">{{
        rows > 1 ? `The first row is the pattern of all ${rows}.` : 'This row is the pattern of all.'
      }}</i>
      <template v-if="leftOut.length > 0">
        <span class="quiet">{{ printed.length > 0 ? 'Left out for this record:' : 'Its columns:' }}</span>
        <button
          v-for="{ id } in leftOut"
          :key="id"
          type="button"
          class="in-words"
          :aria-pressed="sheet.column === id"
          @click="choose(id)"
        >
          {{ headingOf(id) }}
        </button>
      </template>
    </div>
  </div>
</template>

<style scoped>
.designer {
  position: absolute;
  inset: 0;
  z-index: 3;
  pointer-events: none;
}
.designer > * {
  position: absolute;
}
.head {
  padding: 0;
  background: var(--verdigris-50);
  border: 1px solid var(--verdigris);
  border-left-width: 0;
  cursor: grab;
  pointer-events: auto;
}
.head:first-of-type {
  border-left-width: 1px;
}
.head::after {
  color: var(--verdigris);
  content: '⋯';
  font-size: 11px;
  line-height: 16px;
}
.head:hover {
  background: var(--verdigris-100);
}
.head.chosen {
  background: var(--verdigris);
}
.head.chosen::after {
  color: var(--sheet);
}
.over-left {
  box-shadow: -3px 0 var(--brass);
}
.over-right {
  box-shadow: 3px 0 var(--brass);
}
.edge {
  width: 9px;
  margin-left: -5px;
  cursor: col-resize;
  pointer-events: auto;
  touch-action: none;
}
.edge:hover,
.edge.dragged {
  background: linear-gradient(to right, transparent 4px, var(--verdigris) 4px 6px, transparent 6px);
}
.pattern {
  border: 1px dashed var(--verdigris);
}
/* What is repeated is not worked on by itself. */
.repeated {
  background: color-mix(in srgb, var(--paper) 55%, transparent);
}
.foot {
  display: flex;
  gap: 4px 10px;
  align-items: center;
  padding: 4px 8px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 0 0 3px 3px;
  box-shadow: var(--sheet-shadow);
  font-size: 12px;
  pointer-events: auto;
}
.foot :deep(.add .p-select-label) {
  padding: 2px 0 2px 8px;
  color: var(--ink);
  font-weight: 500;
}
.foot i {
  color: var(--verdigris);
  font-family: var(--serif);
}
.in-words[aria-pressed='true'] {
  color: var(--ink);
}
</style>
