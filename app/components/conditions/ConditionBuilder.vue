<script setup lang="ts">
import { writeCondition, type Condition, type Joins, type Rule, type RuleGroup } from '#core/condition/condition';
import type { ConditionView } from '#core/condition/view';

/** A condition, as rows where its formula has that shape, else as its formula. */
const { source, label, list, optional } = defineProps<{
  source: string | undefined;
  label: string;
  /** The list whose items are in scope. */
  list?: string;
  /** Whether it may be left out: it always holds then. */
  optional?: boolean;
}>();
const emit = defineEmits<{ write: [source: string | undefined] }>();
const workshop = useWorkshop();
const figures = useFiguresStore();

const view = shallowRef<ConditionView>();
/** The rows as they are on the screen: a group of one rule is a group here, and nothing to its formula. */
const shown = shallowRef<Condition>();
let written: string | undefined;
const given = computed(() => source ?? 'true');
watch(
  () => [given.value, list, figures.view] as const,
  async ([formula, scope]) => {
    const read = await workshop.condition(formula, scope);
    if (formula !== given.value) return;
    view.value = read;
    if (formula !== written) shown.value = read?.condition;
  },
  { immediate: true },
);
const asFormula = ref(false);
const isRows = computed(() => shown.value !== undefined && !asFormula.value);

function change(joins: Joins, rules: (Rule | RuleGroup)[]): void {
  shown.value = { joins, rules };
  written = writeCondition(shown.value);
  emit('write', rules.length === 0 && source !== undefined ? (optional ? undefined : 'true') : written);
}
function writeFormula(formula: string | undefined): void {
  written = undefined;
  emit('write', formula);
}
</script>

<template>
  <div class="condition" role="group" :aria-label="label">
    <RuleRows v-if="isRows" :joins="shown!.joins" :rules="shown!.rules" :list="list" depth="all" @change="change">
      <button type="button" class="in-words turn" @click="asFormula = true">As a formula</button>
    </RuleRows>
    <template v-else>
      <FormulaField :source="source" :label="label" :list="list" :optional="optional" @write="writeFormula" />
      <p v-if="view?.why" class="quiet">Shown as its formula. {{ view.why }}</p>
      <button v-else type="button" class="in-words turn" @click="asFormula = false">As rows</button>
    </template>
    <ConditionHolds v-if="list === undefined && source !== undefined" :source="source" />
  </div>
</template>

<style scoped>
.condition {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}
.turn {
  margin-left: auto;
  font-size: 12.5px;
}
p {
  font-size: 12px;
}
</style>
