<script setup lang="ts">
import { comparedBy, comparisonsFor, firstValue } from '#core/condition/comparisons';
import type { ConditionValue, Rule } from '#core/condition/condition';
import type { Subject, SubjectGroup } from '#core/condition/subjects';

/** One rule: a field, a comparison, and what it is compared with. */
const { rule, subject, groups, list } = defineProps<{
  rule: Rule;
  subject: Subject;
  groups: readonly SubjectGroup[];
  /** The list whose items are in scope. */
  list?: string;
}>();
const emit = defineEmits<{ change: [rule: Rule]; about: [subject: Subject]; remove: [] }>();
const draft = useDraftStore();
const proofs = useProofRecordsStore();

const comparisons = computed(() => comparisonsFor(subject, rule.comparison));
const takes = computed(() => comparisons.value.find(({ id }) => id === rule.comparison)?.takes ?? 'nothing');
function compare(id: Rule['comparison']): void {
  emit(
    'change',
    comparedBy(
      rule,
      subject,
      comparisons.value.find((each) => each.id === id)!,
    ),
  );
}

/** Values that the records really hold, with how many of them do. */
const held = useLoaded(async () =>
  subject.path !== undefined && draft.template && ['text', 'texts'].includes(subject.kind)
    ? heldValuesOf(draft.template.record.type, subject.path)
    : { among: 0, values: [] },
);
watch(() => subject.path, held.reload, { immediate: true });
const options = computed(() => {
  const values = held.value.value?.values ?? [];
  const countOf = (value: string) => values.find((each) => each.value === value)?.count;
  const known = subject.choices ?? values.map(({ value }) => ({ value, label: value }));
  const given = rule.values.flatMap((value) => (value.is === 'text' ? [value.text] : []));
  const others = given.filter((value) => value !== '' && !known.some((each) => each.value === value));
  return [...known, ...others.map((value) => ({ value, label: value }))].map(({ value, label }) => {
    const count = countOf(value);
    return { value, label: count === undefined ? label : `${label} (${count})` };
  });
});
const several = computed(() => rule.values.flatMap((value) => (value.is === 'text' ? [value.text] : [])));
const chooseSeveral = (texts: string[]) =>
  texts.length > 0 && emit('change', { ...rule, values: texts.map((text) => ({ is: 'text', text })) });

function changeValue(at: number, value: ConditionValue): void {
  emit('change', { ...rule, values: rule.values.map((each, place) => (place === at ? value : each)) });
}
const currencies = computed(() => {
  const own = rule.values.flatMap((value) => (value.is === 'money' ? [value.currency] : []));
  return [...new Set([...own, ...proofs.currencies])].sort();
});
/** A value may be another field's: the two are compared then. */
const isFormula = computed(() => rule.values.some(({ is }) => is === 'formula'));
const mayBeField = computed(() => takes.value === 'one' || takes.value === 'two');
function toggleField(): void {
  const value: ConditionValue = isFormula.value ? firstValue(subject) : { is: 'formula', formula: subject.formula };
  emit('change', { ...rule, values: rule.values.map(() => value) });
}
</script>

<template>
  <div class="rule">
    <div class="head">
      <SubjectPicker :groups="groups" :value="subject" label="What is compared" @choose="emit('about', $event)" />
      <button
        v-tooltip.bottom="'Take this rule away'"
        type="button"
        class="away"
        :aria-label="`Take the rule about ${subject.label} away`"
        @click="emit('remove')"
      >
        ×
      </button>
    </div>
    <PickOne
      class="how"
      :label="`How ${subject.label} is compared`"
      :value="rule.comparison"
      :options="comparisons.map(({ id, label }) => ({ value: id, label }))"
      @choose="compare"
    />
    <div v-if="takes === 'several'" class="values">
      <MultiSelect
        :model-value="several"
        :options="options"
        option-label="label"
        option-value="value"
        :filter="options.length > 12"
        :show-toggle-all="false"
        :max-selected-labels="4"
        :aria-label="`Values of ${subject.label}`"
        size="small"
        fluid
        @update:model-value="chooseSeveral"
      />
    </div>
    <div v-else-if="takes !== 'nothing'" class="values">
      <template v-for="(value, at) in rule.values" :key="at">
        <span v-if="at > 0" class="quiet">and</span>
        <RuleValue
          :value="value"
          :subject="subject"
          :label="`Value of ${subject.label}`"
          :list="list"
          :options="options"
          :currencies="currencies"
          @change="changeValue(at, $event)"
        />
      </template>
      <span v-if="takes === 'days'" class="quiet">days</span>
      <button v-if="mayBeField" type="button" class="in-words" @click="toggleField">
        {{ isFormula ? 'a value' : 'a field' }}
      </button>
    </div>
    <div v-if="subject.kind === 'records'" class="where">
      <RuleRows
        :joins="rule.where?.joins ?? 'all'"
        :rules="rule.where?.rules ?? []"
        :list="subject.formula"
        depth="where"
        @change="
          (joins, rules) =>
            emit('change', { ...rule, where: rules.length ? { joins, rules: rules as Rule[] } : undefined })
        "
      />
    </div>
  </div>
</template>

<style scoped>
.rule {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1px;
  padding: 5px 8px 7px;
}
.head {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 20px;
  gap: 6px;
  align-items: center;
}
/* Fields and comparisons read as words; what they are chosen from opens under them. */
.rule :deep(:is(.subject, .how)) {
  justify-self: start;
  min-width: 0;
  max-width: 100%;
  background: none;
  border-color: transparent;
}
.rule :deep(:is(.subject, .how):hover) {
  border-color: var(--hairline);
}
.rule :deep(:is(.subject, .how) .p-select-label) {
  padding: 1px 0 1px 2px;
}
.rule :deep(:is(.subject, .how) .p-select-dropdown) {
  width: 20px;
}
.rule :deep(.subject .p-select-label) {
  font-weight: 600;
}
.rule :deep(.how .p-select-label) {
  color: var(--ink-quiet);
}
.values {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  align-items: center;
}
.away {
  width: 20px;
  padding: 0;
  background: none;
  border: 0;
  color: var(--ink-quiet);
  font-size: 15px;
  cursor: pointer;
}
.away:hover {
  color: var(--brick);
}
.where {
  padding-left: 8px;
}
.in-words {
  font-size: 12px;
}
</style>
