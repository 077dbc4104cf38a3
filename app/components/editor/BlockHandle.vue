<script setup lang="ts">
import { draggable, monitorForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import type { DragLocation } from '@atlaskit/pragmatic-drag-and-drop/types';
import { blockAt, dropPlaceAt, type DropPlace } from '~/editor/drop-place';

/** What a block is dragged by: it stands beside the one under the pointer. A click chooses the block. */
const { frame } = defineProps<{
  /** What places are measured from. */
  frame: HTMLElement;
}>();
const sheet = useSheetStore();
const draft = useDraftStore();

const over = shallowRef<{ id: string; left: string; top: string }>();
const place = shallowRef<DropPlace>();
const isDragged = ref(false);

function follow({ clientX, clientY }: PointerEvent): void {
  if (isDragged.value || !sheet.editor?.isEditable) return;
  const found = blockAt(sheet.editor.view, clientX, clientY);
  // Between blocks it stays where it was, so that it can be reached.
  if (!found || found.id === over.value?.id) return;
  const { left, top } = found.element.getBoundingClientRect();
  const around = frame.getBoundingClientRect();
  over.value = { id: found.id, left: `${left - around.left - 20}px`, top: `${top - around.top}px` };
}
useEventListener(() => frame, 'pointermove', useThrottleFn(follow, 40), { passive: true });
useEventListener(
  () => frame,
  'pointerleave',
  () => !isDragged.value && (over.value = undefined),
);
// Where something was written it would stand in the wrong place.
watch(
  () => draft.template?.layout,
  () => !isDragged.value && (over.value = undefined),
);

/** Where on the sheet it is; undefined beside it, as in the outline. */
function placeOf({ dropTargets, input }: DragLocation): DropPlace | undefined {
  const isOnSheet = dropTargets.some(({ element }) => element.contains(frame));
  return isOnSheet && sheet.editor ? dropPlaceAt(sheet.editor.view, input.clientX, input.clientY) : undefined;
}

const handle = useTemplateRef<HTMLElement>('handle');
watchEffect((stop) => {
  if (!handle.value) return;
  stop(
    draggable({
      element: handle.value,
      getInitialData: () => ({ blocks: over.value!.id }),
      onDragStart: () => (isDragged.value = true),
      onDrop: () => (isDragged.value = false),
    }),
  );
});
watchEffect((stop) => {
  stop(
    monitorForElements({
      canMonitor: ({ source }) => 'blocks' in source.data,
      onDrag: ({ location: { current } }) => (place.value = placeOf(current)),
      onDrop: ({ source, location: { current } }) => {
        place.value = undefined;
        const to = placeOf(current);
        if (to) sheet.moveBeside(String(source.data.blocks), to.id, to.side);
      },
    }),
  );
});

const line = computed(() => {
  if (!place.value) return undefined;
  const around = frame.getBoundingClientRect();
  const { left, top, width } = place.value.line;
  return { left: `${left - around.left}px`, top: `${top - around.top}px`, width: `${width}px` };
});
</script>

<template>
  <button
    v-if="over"
    ref="handle"
    v-tooltip.left="'Drag to move'"
    type="button"
    class="handle"
    :style="{ left: over.left, top: over.top }"
    tabindex="-1"
    aria-label="Choose this block; drag it to move it"
    @mousedown.stop
    @click="sheet.chooseWhole(over.id)"
  >
    ⠿
  </button>
  <span v-if="line" class="block-line" :style="line"></span>
</template>

<style scoped>
.handle {
  position: absolute;
  z-index: 2;
  width: 17px;
  height: 20px;
  padding: 0;
  background: none;
  border: 0;
  border-radius: 3px;
  color: var(--slate);
  font-size: 13px;
  line-height: 20px;
  cursor: grab;
}
.handle:hover {
  background: var(--stone-100);
}
.block-line {
  position: absolute;
  z-index: 2;
  height: 2px;
  background: var(--verdigris);
  pointer-events: none;
}
</style>
