<script setup lang="ts">
import { partOf } from '~/editor/commands';
import { evenWidths, moveWidth } from '~/editor/widths';

/** Between the columns of the table or of the columns that are chosen: each is dragged, or moved by the arrow keys. */
const { frame, zoom } = defineProps<{
  /** What places are measured from. */
  frame: HTMLElement;
  zoom: number;
}>();
const sheet = useSheetStore();
const draft = useDraftStore();

const chosen = computed(() => sheet.chosen.find(({ type }) => type === 'gridTable' || type === 'columns'));
interface Edge {
  left: number;
  top: number;
  height: number;
}
const edges = shallowRef<Edge[]>([]);
/** Pixels of the whole table. */
const across = ref(0);
/** Widths while one is dragged; those of the sheet otherwise. */
const widths = shallowRef<number[]>([]);

function measure(): void {
  const found = chosen.value;
  edges.value = [];
  if (!found || !sheet.editor?.isEditable) return;
  const table = frame.querySelector<HTMLElement>(`.sheet-text [data-id="${CSS.escape(found.id)}"]`);
  const cells = [
    ...(table?.querySelectorAll<HTMLElement>(':scope > .column, :scope > .row:first-child > .cell') ?? []),
  ];
  if (!table || cells.length < 2) return;
  const around = frame.getBoundingClientRect();
  const { top, height, width } = table.getBoundingClientRect();
  across.value = width;
  widths.value = widthsOf(found, cells.length);
  edges.value = cells.slice(0, -1).map((cell) => {
    const { right, left } = cell.getBoundingClientRect();
    const next = cells[cells.indexOf(cell) + 1]!.getBoundingClientRect();
    // Where text runs from right to left, the next column is at the left.
    const between = next.left >= right ? (right + next.left) / 2 : (left + next.right) / 2;
    return { left: between - around.left, top: top - around.top, height };
  });
}
watchDebounced([chosen, () => draft.template?.layout, () => zoom], measure, { debounce: 60, immediate: true });

function widthsOf(
  { type, id, attrs }: { type: string; id: string; attrs: Readonly<Record<string, unknown>> },
  count: number,
) {
  if (type === 'gridTable') return evenWidths(attrs.widths as number[] | null, count);
  const part = partOf(sheet.editor!.state.doc, id)!;
  return part.node.children.map((column) => Number(column.attrs.width));
}

function take(next: readonly number[]): void {
  if (chosen.value) sheet.setWidths(chosen.value.id, next);
}

/** While it is dragged, a line shows where the edge would be. */
const dragged = shallowRef<{ at: number; by: number }>();
function drag(at: number, event: PointerEvent): void {
  const handle = event.currentTarget as HTMLElement;
  const from = event.clientX;
  handle.setPointerCapture(event.pointerId);
  const move = (moved: PointerEvent) => (dragged.value = { at, by: moved.clientX - from });
  const end = (ended: PointerEvent) => {
    handle.removeEventListener('pointermove', move);
    handle.removeEventListener('pointerup', end);
    dragged.value = undefined;
    if (ended.clientX !== from) take(moveWidth(widths.value, at, (ended.clientX - from) / across.value));
  };
  handle.addEventListener('pointermove', move);
  handle.addEventListener('pointerup', end);
}
const STEP = 0.02;
const share = (at: number) =>
  Math.round(
    (100 * widths.value.slice(0, at + 1).reduce((sum, each) => sum + each, 0)) /
      widths.value.reduce((sum, each) => sum + each, 0),
  );
</script>

<template>
  <div
    v-for="({ left, top, height }, at) in edges"
    :key="at"
    role="separator"
    aria-orientation="vertical"
    tabindex="0"
    :aria-label="`Edge of column ${at + 1}`"
    :aria-valuenow="share(at)"
    aria-valuemin="0"
    aria-valuemax="100"
    class="edge"
    :class="{ dragged: dragged?.at === at }"
    :style="{ left: `${left + (dragged?.at === at ? dragged.by : 0)}px`, top: `${top}px`, height: `${height}px` }"
    @pointerdown.prevent.stop="drag(at, $event)"
    @keydown.left.prevent="take(moveWidth(widths, at, -STEP))"
    @keydown.right.prevent="take(moveWidth(widths, at, STEP))"
  ></div>
</template>

<style scoped>
.edge {
  position: absolute;
  z-index: 2;
  width: 9px;
  margin-left: -4px;
  cursor: col-resize;
  touch-action: none;
}
.edge::after {
  display: block;
  width: 1px;
  height: 100%;
  margin: 0 auto;
  background: var(--hairline);
  content: '';
}
.edge:hover::after,
.edge:focus-visible::after,
.edge.dragged::after {
  width: 2px;
  background: var(--verdigris);
}
</style>
