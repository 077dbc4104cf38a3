<script setup lang="ts">
import type { Use } from '#core/template/where-used';
import { draggable } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';

/** A field or a figure that can be brought onto the sheet: by a click, by Enter, or by dragging. */
const { field } = defineProps<{
  field: { formula: string; label: string; type?: string };
  /** Its path, for those who write formulas. */
  about: string;
  /** What it says for the record that is shown. */
  text: string | undefined;
  isBlank?: boolean;
  isFigure?: boolean;
  /** Where the draft uses it. */
  uses: readonly Use[];
}>();
const sheet = useSheetStore();
const button = useTemplateRef<HTMLElement>('button');
watchEffect((stop) => {
  if (button.value) stop(draggable({ element: button.value, getInitialData: () => ({ ...field }) }));
});
</script>

<template>
  <div class="brought-in">
    <button ref="button" v-tooltip.right="about" type="button" @click="sheet.insertField(field)">
      <span>{{ field.label }}</span>
      <span v-if="isBlank" class="shown blank">blank</span>
      <span v-else-if="text" class="shown" :class="{ figure: isFigure }">{{ text }}</span>
    </button>
    <UseCount :uses="uses" :formula="field.formula" />
  </div>
</template>

<style scoped>
.brought-in {
  display: flex;
  align-items: center;
}
.brought-in > button:first-child {
  display: flex;
  flex: 1;
  align-items: baseline;
  gap: 8px;
  min-width: 0;
  padding: 2px 6px 2px 26px;
  background: none;
  border: 0;
  color: var(--ink);
  text-align: start;
  cursor: grab;
}
.brought-in > button:first-child:hover {
  background: var(--verdigris-50);
}
button > :first-child {
  flex: none;
  max-width: 60%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.shown {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  color: var(--ink-quiet);
  text-align: end;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.figure {
  color: var(--ink);
}
.blank {
  color: var(--brick);
}
</style>
