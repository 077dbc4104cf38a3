<script setup lang="ts">
import type { FigureSheet } from '#core/sheet/figure';

/** What holds for the whole sheet: its currency, its rounding, and the columns that are proved to add up. */
const { sheet, problems } = defineProps<{ sheet: FigureSheet; problems: readonly string[] }>();
const emit = defineEmits<{ change: [part: Partial<FigureSheet>, words: string] }>();

const ROUNDINGS = [
  { value: 'half-away' as const, label: 'away from zero' },
  { value: 'half-even' as const, label: 'to even' },
];
const column = ref('');
const figure = ref('');
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim();

function addSum(): void {
  if (!column.value || !figure.value) return;
  emit(
    'change',
    { sums: [...sheet.sums, { column: column.value, figure: figure.value }] },
    'Total that must match added',
  );
  [column.value, figure.value] = ['', ''];
}
function removeSum(at: number): void {
  emit('change', { sums: sheet.sums.filter((_, position) => position !== at) }, 'Total that must match deleted');
}
</script>

<template>
  <section class="sheet-leaf">
    <p>Choose a figure to write its formula and to see where it is used.</p>
    <p class="legend"><i class="uses"></i> what the figure pointed at is computed from</p>
    <p class="legend"><i class="used"></i> what is computed from it</p>
    <p class="quiet">Drag by the dots to reorder, or hold Alt and press an arrow. The order never changes a value.</p>
    <h4>The whole sheet</h4>
    <label>
      <span>Currency</span>
      <InputText
        class="mono"
        size="small"
        :model-value="sheet.currency"
        @change="emit('change', { currency: typed($event) }, 'Currency changed')"
      />
    </label>
    <label>
      <span>Rounding of halves</span>
      <PickOne
        label="Rounding of halves"
        :value="sheet.rounding"
        :options="ROUNDINGS"
        @choose="emit('change', { rounding: $event }, 'Rounding changed')"
      />
    </label>
    <h4>Totals that must match</h4>
    <ul>
      <li v-for="(sum, at) in sheet.sums" :key="at">
        <span
          ><code>{{ sum.column }}</code> adds up to <code>{{ sum.figure }}</code></span
        >
        <button type="button" :aria-label="`Delete the check of ${sum.figure}`" @click="removeSum(at)">×</button>
      </li>
    </ul>
    <form @submit.prevent="addSum">
      <InputText v-model="column" class="mono" size="small" placeholder="lines.net" aria-label="Column" />
      <PickOne
        label="Figure it adds up to"
        :value="figure || undefined"
        placeholder="adds up to"
        :options="sheet.document.map(({ name, label }) => ({ value: name, label }))"
        @choose="figure = $event"
      />
      <button type="submit" :disabled="!column || !figure">Add</button>
    </form>
    <p v-for="problem in problems" :key="problem" class="problem">{{ problem }}</p>
  </section>
</template>

<style scoped>
.sheet-leaf {
  display: grid;
  gap: 8px;
  padding: 12px 14px;
}
.legend i {
  display: inline-block;
  width: 18px;
  height: 12px;
  margin-right: 6px;
  border: 1px solid var(--hairline);
  vertical-align: -1px;
}
.uses {
  background: var(--verdigris-50);
}
.used {
  background: var(--brass-50);
}
h4 {
  margin: 8px 0 0;
  padding-bottom: 3px;
  border-bottom: 1px solid var(--hairline);
  font: 500 13px/18px var(--sans);
}
label {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  align-items: center;
  gap: 8px;
}
label span {
  color: var(--ink-quiet);
  font-size: 12px;
}
input {
  min-width: 0;
  height: 28px;
  padding: 0 8px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 3px;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 3px 0;
  font-size: 12px;
}
code {
  font: 12px/17px var(--mono);
  overflow-wrap: anywhere;
}
li button,
form button {
  padding: 0 2px;
  background: none;
  border: 0;
  color: var(--verdigris);
  cursor: pointer;
}
form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px;
}
form > :first-child {
  grid-column: 1 / -1;
}
form button:disabled {
  color: var(--ink-off);
}
.problem {
  color: var(--brick);
}
</style>
