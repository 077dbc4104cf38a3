<script setup lang="ts">
import type { ConditionValue } from '#core/condition/condition';
import type { Subject } from '#core/condition/subjects';

/** What a rule compares with: typed or chosen as its field has it. */
const { value, subject, label, list } = defineProps<{
  value: ConditionValue;
  subject: Subject;
  label: string;
  list?: string;
  /** Choices with their counts; none where anything can be typed. */
  options: readonly { value: string; label: string }[];
  currencies: readonly string[];
}>();
const emit = defineEmits<{ change: [value: ConditionValue] }>();

/** Stands for the currency that the field itself has. */
const OWN = 'own';
const suggestions = ref<string[]>([]);
const typedText = ref('');
watch(
  () => value,
  (now) => (typedText.value = now.is === 'text' ? now.text : ''),
  { immediate: true },
);
function keepText(): void {
  if (value.is === 'text' && typedText.value !== value.text) emit('change', { is: 'text', text: typedText.value });
}
const number = computed(() => ('number' in value ? Number(value.number) : 0));
function keepNumber(typed: number | null): void {
  if (typed === null || !('number' in value) || String(typed) === value.number) return;
  emit('change', { ...value, number: String(typed) });
}
function chooseCurrency(currency: string): void {
  if (!('number' in value)) return;
  const { number: amount } = value;
  emit('change', currency === OWN ? { is: 'number', number: amount } : { is: 'money', number: amount, currency });
}
const dateKind = computed(() =>
  value.is === 'date' ? 'date' : value.is === 'day' && value.days === 0 ? 'today' : 'day',
);
const DATES = [
  { value: 'today', label: 'today' },
  { value: 'day', label: 'days from today' },
  { value: 'date', label: 'a day' },
] as const;
function chooseDate(kind: (typeof DATES)[number]['value']): void {
  if (kind === 'date') emit('change', { is: 'date', date: dayOfDate(new Date()) });
  else emit('change', { is: 'day', days: kind === 'today' ? 0 : 30 });
}
</script>

<template>
  <span class="value">
    <FormulaField
      v-if="value.is === 'formula'"
      :source="value.formula"
      :label="label"
      :list="list"
      @write="$event && emit('change', { is: 'formula', formula: $event })"
    />
    <PickOne
      v-else-if="value.is === 'text' && subject.choices"
      :label="label"
      :value="value.text"
      :options="options"
      @choose="emit('change', { is: 'text', text: $event })"
    />
    <AutoComplete
      v-else-if="value.is === 'text'"
      v-model="typedText"
      :suggestions="suggestions"
      :aria-label="label"
      :option-label="(each: string) => options.find((option) => option.value === each)?.label ?? each"
      complete-on-focus
      dropdown
      :min-length="0"
      size="small"
      fluid
      @complete="
        suggestions = options
          .map((each) => each.value)
          .filter((each) => each.toLowerCase().includes($event.query.toLowerCase()))
      "
      @option-select="emit('change', { is: 'text', text: String($event.value) })"
      @blur="keepText"
      @keydown.enter="keepText"
    />
    <template v-else-if="value.is === 'date' || value.is === 'day'">
      <PickOne :label="`${label}, how it is given`" :value="dateKind" :options="DATES" @choose="chooseDate" />
      <PickDay
        v-if="value.is === 'date'"
        :value="value.date"
        :label="label"
        @choose="$event && emit('change', { is: 'date', date: $event })"
      />
      <InputNumber
        v-else-if="dateKind === 'day'"
        :model-value="value.days"
        :aria-label="label"
        :min="-9999"
        :max="9999"
        size="small"
        input-class="short"
        @update:model-value="$event !== null && $event !== undefined && emit('change', { is: 'day', days: $event })"
      />
    </template>
    <template v-else>
      <InputNumber
        :model-value="number"
        :aria-label="label"
        :max-fraction-digits="6"
        :min="-1e12"
        :max="1e12"
        :suffix="value.is === 'percent' ? ' %' : undefined"
        size="small"
        input-class="number"
        @update:model-value="keepNumber"
      />
      <PickOne
        v-if="subject.kind === 'money'"
        :label="`Currency of ${label.toLowerCase()}`"
        :value="value.is === 'money' ? value.currency : OWN"
        :options="[{ value: OWN, label: 'own currency' }, ...currencies.map((each) => ({ value: each, label: each }))]"
        @choose="chooseCurrency"
      />
    </template>
  </span>
</template>

<style scoped>
.value {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  min-width: 0;
}
.value :deep(.number) {
  width: 84px;
  text-align: end;
}
.value :deep(.short) {
  width: 60px;
  text-align: end;
}
</style>
