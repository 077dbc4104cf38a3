<script setup lang="ts">
import type { SheetFormula } from '#core/sheet/formulas';
import type { FigureView, ShownValue } from '#core/sheet/view';

/** One figure on the sheet: its name, its formula, its value for the record; opened, its formula can be written. */
const { entry, view, row, open, lit } = defineProps<{
  entry: SheetFormula;
  view: FigureView | undefined;
  row: number;
  open: boolean;
  /** Why it is lit: the one pointed at uses it, or is used by it. */
  lit: 'uses' | 'used' | undefined;
}>();
const emit = defineEmits<{ open: []; close: []; write: [formula: string]; help: []; point: [on: boolean] }>();

const draft = ref<string>();
const named = computed(() => (entry.figure ?? entry.derived)!);
const value = computed<ShownValue | undefined>(
  () => view?.values[entry.list === undefined ? 0 : Math.min(row, view.values.length - 1)],
);
const faults = computed(() => [...(view?.diagnostics.map(({ message }) => message) ?? []), ...(view?.problems ?? [])]);

function keep(): void {
  if (draft.value !== undefined && draft.value !== entry.formula) emit('write', draft.value);
  draft.value = undefined;
}
function leave(): void {
  draft.value = undefined;
  emit('close');
}
// What was written is kept when another figure is opened, or this one is left with the pointer.
watch(
  () => open,
  (isOpen) => {
    if (!isOpen) keep();
  },
);
onBeforeUnmount(keep);
</script>

<template>
  <li
    class="figure-row"
    :class="{ open, [lit ?? '']: lit, faulty: faults.length > 0 }"
    :data-key="entry.key"
    @mouseenter="emit('point', true)"
    @mouseleave="emit('point', false)"
  >
    <span class="handle" aria-hidden="true"></span>
    <button type="button" class="name" :aria-expanded="open" @click="open ? emit('close') : emit('open')">
      <span class="label">{{ named.label }}</span>
      <span class="mono quiet">{{ named.name }}<template v-if="entry.figure?.internal"> · internal</template></span>
    </button>
    <button v-if="!open" type="button" class="formula mono" tabindex="-1" @click="emit('open')">
      {{ entry.formula }}
    </button>
    <div v-else class="editing">
      <FormulaLine
        :source="draft ?? entry.formula"
        :list="entry.list"
        :row="row"
        :label="`Formula of ${named.label}`"
        @typed="draft = $event"
        @done="
          keep();
          emit('close');
        "
        @left="leave"
        @help="emit('help')"
      />
    </div>
    <span class="value" :class="{ failed: value?.failed }">
      <span v-if="value?.failed" v-tooltip.left="value.text" class="error" tabindex="0">error</span>
      <span v-else-if="value" :class="{ double: entry.figure }">{{ value.text }}</span>
      <span v-else class="quiet">–</span>
    </span>
    <p v-for="fault in open ? [] : faults" :key="fault" class="fault">{{ fault }}</p>
  </li>
</template>

<style scoped>
.figure-row {
  display: grid;
  grid-template-columns: 18px minmax(0, 172px) minmax(0, 1fr) 128px;
  column-gap: 10px;
  align-items: baseline;
  padding: 5px 14px 5px 2px;
  border-bottom: 1px solid var(--hairline-soft);
  border-left: 3px solid transparent;
}
.figure-row.open {
  align-items: start;
  padding-block: 9px;
  background: var(--stone-50);
  border-left-color: var(--verdigris);
}
.figure-row.uses {
  background: var(--verdigris-50);
}
.figure-row.used {
  background: var(--brass-50);
}
.handle {
  width: 8px;
  height: 14px;
  margin: 3px 0 0 6px;
  background: radial-gradient(circle, var(--ink-off) 1px, transparent 1.3px) 0 0 / 4px 4px;
  cursor: grab;
  opacity: 0;
}
.figure-row:hover .handle,
.open .handle {
  opacity: 1;
}
.name,
.formula {
  padding: 0;
  overflow: hidden;
  background: none;
  border: 0;
  color: inherit;
  text-align: start;
  cursor: pointer;
}
.name {
  display: flex;
  flex-direction: column;
}
.label {
  font-weight: 500;
}
.name .mono {
  overflow: hidden;
  font-size: 11px;
  line-height: 15px;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.formula {
  color: var(--ink);
  line-height: 18px;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
  overflow-wrap: anywhere;
}
.value {
  text-align: end;
  overflow-wrap: anywhere;
}
.double {
  border-bottom: 3px double var(--brass);
}
.error,
.failed {
  color: var(--brick);
}
.fault {
  grid-column: 3 / 5;
  color: var(--brick);
  font-size: 12px;
}
/* On a narrow screen the formula stands below name and value. */
@media (max-width: 900px) {
  .figure-row {
    grid-template-columns: 18px minmax(0, 1fr) 128px;
  }
  .figure-row > :nth-child(3) {
    grid-area: 2 / 2 / 3 / 4;
  }
  .fault {
    grid-column: 2 / 4;
  }
}
</style>
